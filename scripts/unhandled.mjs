import { writeFileSync } from 'node:fs'

/**
 * A reporter of Vitest that keeps what no test failed with, yet the run did: rejections nobody waited for, workers that ended. The report
 * in JSON leaves them out. Written to the file named by TROUGH_UNHANDLED, as a list of texts.
 */
export default class Unhandled {
  onTestRunEnd(_modules, errors) {
    const told = error =>
      [
        error.VITEST_TEST_PATH && `while ${error.VITEST_TEST_PATH} ran:`,
        (error.stack ?? `${error.name}: ${error.message}`).replace(/\n.*node_modules.*/g, ''),
        error.cause && `because of ${told(error.cause)}`,
      ]
        .filter(Boolean)
        .join('\n')
    writeFileSync(process.env.TROUGH_UNHANDLED, JSON.stringify(errors.map(told)))
  }
}
