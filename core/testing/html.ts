import { HtmlValidate } from 'html-validate'

const validator = new HtmlValidate({ extends: ['html-validate:standard', 'html-validate:a11y'], rules: { 'doctype-style': 'off' } })

/** What a validator from outside finds wrong with a document. */
export async function problemsOf(html: string): Promise<string[]> {
  const report = await validator.validateString(html)
  return report.results.flatMap(result => result.messages.map(message => `${message.ruleId}: ${message.message}`))
}
