/** `npm run bench`: measures what people run, bundled, not what a translator makes of it on the way. */
import { pathToFileURL } from 'node:url'
import { bundled, install } from './setup.mjs'

install()
const sources = ['bench', 'core', 'app', 'cli', 'tests/fixtures']
await import(pathToFileURL(bundled('bench/main.ts', sources)).href)
