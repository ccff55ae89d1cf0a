import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { chmod, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { connect, createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

/** OpenSMTPD (Debian's `opensmtpd`), which takes every message and adds it to one file. */
export async function startSmtpd() {
  const folder = await mkdtemp(join(tmpdir(), 'trough-smtpd-'))
  const [config, mailbox] = [join(folder, 'conf'), join(folder, 'mailbox')]
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address() as { port: number }
  probe.close()
  await once(probe, 'close')
  await writeFile(mailbox, '')
  // It delivers as nobody.
  await chmod(folder, 0o755)
  await chmod(mailbox, 0o666)
  await writeFile(
    config,
    `listen on 127.0.0.1 port ${port}
table everybody { "@" = nobody }
action "keep" mda "/bin/sh -c 'cat >> ${mailbox}'" virtual <everybody>
match from any for any action "keep"
`,
  )
  const child = spawn('smtpd', ['-d', '-f', config], { stdio: ['ignore', 'pipe', 'pipe'] })
  let output = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (output += chunk))
  const listens = () =>
    new Promise<boolean>(resolve => {
      const socket = connect(port, '127.0.0.1')
      socket.on('connect', () => resolve(!socket.destroy().connecting))
      socket.on('error', () => resolve(false))
    })
  while (!(await listens())) {
    if (child.exitCode !== null) throw new Error(`smtpd ended: ${output}`)
    await wait(50)
  }
  return {
    port,
    /** everything it took, one message behind the other */
    mailbox: () => readFile(mailbox, 'utf8'),
    async stop() {
      child.kill('SIGTERM')
      await once(child, 'exit')
      await rm(folder, { recursive: true, force: true })
    },
  }
}
