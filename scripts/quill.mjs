/** `npm run -s quill -- COMMAND …`: installs when needed, then hands over to cli/main.ts. */
import { spawnSync } from 'node:child_process'
import { install, root } from './setup.mjs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

install()
const tsx = pathToFileURL(join(root, 'node_modules/tsx/dist/esm/index.mjs')).href
const { status } = spawnSync(
  process.execPath,
  ['--import', tsx, join(root, 'cli/main.ts'), ...process.argv.slice(2)],
  { stdio: 'inherit' },
)
process.exit(status ?? 2)
