/** `npm run -s quill -- COMMAND …`: installs and bundles when needed, then hands over to cli/main.ts. */
import { pathToFileURL } from 'node:url'
import { bundled, install } from './setup.mjs'

install()
await import(pathToFileURL(bundled('cli/main.ts', ['cli', 'core', 'server'])).href)
