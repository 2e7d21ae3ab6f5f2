/** One command from a fresh clone to the running demo: installs, builds, serves, and prints the address. PORT is honoured. */
import { spawn } from 'node:child_process'
import { build, install, root } from './setup.mjs'

install()
build()
const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, NODE_ENV: 'production', KEEN_QUILL_DEMO: '1' },
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => process.exit(code ?? 0))
