/** Redirects as the two servers themselves read them: Debian's apache2 and nginx, on this machine's own address. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addressOf } from '../../core/addresses/addresses.ts'
import { writeHtaccess, writeNginxMap } from '../../core/exchange/server-redirects.ts'
import type { Redirect } from '../../core/site/moves.ts'
import { Chance } from '../fuzz/fuzz.ts'

type Check = (what: string, ok: boolean, detail?: string) => void

const BASE = 'https://s.example/'
const REDIRECTS = 400
const SEED = 20261126
/** What names of files are made of: letters, what means something in a pattern or a configuration, and other scripts. */
const signs = [...'abcXYZ019-_.~!$&()*+,;=:@^|[]{}\'" #%?\\', 'é', 'ß', 'å', '灯', '塔', 'א', '🙂']

/** Files that moved, each name once, none the beginning of a rule for another. */
function generatedRedirects(): Redirect[] {
  const chance = new Chance(SEED)
  const name = () =>
    Array.from({ length: 1 + chance.below(9) }, () => signs[chance.below(signs.length)]!).join('')
  const paths = new Set<string>()
  while (paths.size < REDIRECTS * 2) {
    const path = `${chance.below(2) ? `${name()}/` : ''}${name()}.html`
    if (!path.split('/').some((segment) => /^\.{1,2}$/.test(segment))) paths.add(path)
  }
  const addresses = [...paths].map((path) => addressOf(path, BASE))
  return addresses
    .slice(0, REDIRECTS)
    .map((from, i) => ({ from, to: addresses[REDIRECTS + i]!, status: '301' }))
}

const ask = (port: number, address: string) =>
  new Promise<{ status: number; to: string }>((done) => {
    const { pathname, search } = new URL(address)
    request({ host: '127.0.0.1', port, path: pathname + search }, (answer) => {
      answer.resume()
      done({ status: answer.statusCode ?? 0, to: answer.headers.location ?? '' })
    })
      .on('error', (error) => done({ status: 0, to: error.message }))
      .end()
  })

async function answering(port: number, server: ChildProcess): Promise<boolean> {
  for (let tries = 0; tries < 100 && server.exitCode === null; tries++) {
    if ((await ask(port, `${BASE}nothing-here`)).status > 0) return true
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  return false
}

/** Every old address answers with its redirect, and an address that did not move with none. */
export async function redirectsOnServers(check: Check): Promise<void> {
  const have = (program: string) => !spawnSync(program, ['-v']).error
  if (!have('apache2') || !have('nginx'))
    spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'apache2', 'nginx-light'], {
      stdio: 'ignore',
    })
  const redirects = generatedRedirects()
  const work = mkdtempSync(join(tmpdir(), 'kq-servers-'))
  chmodSync(work, 0o755)
  const site = join(work, 'www')
  mkdirSync(site)
  writeFileSync(join(site, '.htaccess'), writeHtaccess(redirects))
  writeFileSync(join(work, 'moved.map'), writeNginxMap(redirects))
  const module = (name: string) => `LoadModule ${name}_module /usr/lib/apache2/modules/mod_${name}.so\n`
  writeFileSync(
    join(work, 'apache.conf'),
    `${['mpm_event', 'authz_core', 'rewrite', 'dir'].map(module).join('')}ServerName s.example
Listen 127.0.0.1:4490
PidFile ${work}/apache.pid
ErrorLog ${work}/apache.log
User www-data
Group www-data
DocumentRoot ${site}
<Directory ${site}>
  AllowOverride All
  Require all granted
</Directory>
`,
  )
  writeFileSync(
    join(work, 'nginx.conf'),
    `daemon off;
pid ${work}/nginx.pid;
error_log ${work}/nginx.log;
events {}
http {
  access_log off;
  include ${work}/moved.map;
  server {
    listen 127.0.0.1:4491;
    root ${site};
    if ($page_moved_to) { return 301 $page_moved_to; }
  }
}
`,
  )
  for (const { name, program, args, port } of [
    {
      name: '.htaccess',
      program: 'apache2',
      args: ['-d', work, '-f', join(work, 'apache.conf'), '-DFOREGROUND'],
      port: 4490,
    },
    { name: 'map', program: 'nginx', args: ['-c', join(work, 'nginx.conf')], port: 4491 },
  ]) {
    const server = spawn(program, args, { stdio: ['ignore', 'ignore', 'pipe'] })
    let said = ''
    server.stderr.on('data', (more: Buffer) => (said += more.toString()))
    server.on('error', (error) => (said += error.message))
    if (!(await answering(port, server))) {
      check(`the ${name} is taken by its server`, false, said.slice(0, 300))
      server.kill()
      continue
    }
    const wrong: string[] = []
    for (const { from, to } of redirects) {
      const answer = await ask(port, from)
      // nginx has no way to write a dollar sign that begins no variable.
      if (answer.status !== 301 || answer.to !== (name === 'map' ? to.replaceAll('$', '%24') : to))
        wrong.push(`${from}: ${answer.status} ${answer.to} instead of ${to}`)
    }
    const stays: string[] = []
    for (const { to } of redirects) {
      const answer = await ask(port, to)
      if (answer.to !== '') stays.push(`${to}: ${answer.status} ${answer.to}`)
    }
    check(
      `each of ${redirects.length} old addresses answers with its redirect by the ${name}`,
      wrong.length === 0,
      wrong.length > 0 ? `${wrong.length}: ${wrong.slice(0, 5).join('; ')}` : '',
    )
    check(`none of ${redirects.length} new addresses is redirected`, stays.length === 0, stays[0])
    server.kill()
  }
}
