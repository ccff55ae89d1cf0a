import { execFileSync, spawn } from 'node:child_process'
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { ROOT } from '../root'
import { freePort } from './ports'

/** nginx with the configuration that is documented, its ports and folder put in. */
export async function startNginx({
  trough,
  report,
  store,
  plain,
}: {
  /** Trough's own port */ trough: number
  /** UDP port */ report: number
  store: string
  /** a file that nginx alone serves at /plain */ plain?: string
}) {
  const folder = await mkdtemp(join(tmpdir(), 'trough-nginx-'))
  const port = await freePort()
  const documented = await readFile(join(ROOT, 'docs/nginx.conf'), 'utf8')
  const server = documented
    .replace('server {\n  listen 80;', plain ? `server {\n  location = /plain { alias ${plain}; }\n  listen 80;` : 'server {\n  listen 80;')
    .replace('listen 80;', `listen 127.0.0.1:${port};`)
    .replace('127.0.0.1:4180', `127.0.0.1:${trough}`)
    .replace('127.0.0.1:4181', `127.0.0.1:${report}`)
    .replace('/srv/trough/data/store/', `${store}/`)
  await mkdir(join(folder, 'logs'))
  const config = join(folder, 'nginx.conf')
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(name => `${name}_temp_path ${folder}/${name};`).join(' ')
  await writeFile(
    config,
    `daemon off; pid ${folder}/pid; error_log ${folder}/logs/error.log; user root;
events { worker_connections 1024; }
http { access_log off; ${temporary}
${server}}`,
  )
  execFileSync('nginx', ['-t', '-q', '-c', config, '-p', folder], { stdio: 'pipe' })
  const child = spawn('nginx', ['-c', config, '-p', folder], { stdio: 'ignore' })
  while (
    !(await fetch(`http://127.0.0.1:${port}/`).then(
      () => true,
      () => false,
    ))
  ) {
    if (child.exitCode !== null) throw new Error(`nginx ended: ${await readFile(join(folder, 'logs/error.log'), 'utf8')}`)
    await wait(50)
  }
  return {
    url: `http://127.0.0.1:${port}`,
    async stop() {
      child.kill('SIGQUIT')
      await new Promise(resolve => child.once('exit', resolve))
      await rm(folder, { recursive: true, force: true })
    },
  }
}
