/** What the commands share: installing once for each lock file, building once for each state of the sources. Node built-ins only. */
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'

export const root = join(import.meta.dirname, '..')
const cache = join(root, 'node_modules/.cache/keen-quill')

const digest = (files) => {
  const hash = createHash('sha256')
  for (const file of files) hash.update(file).update(readFileSync(join(root, file)))
  return hash.digest('hex')
}

function filesIn(folder) {
  return readdirSync(join(root, folder), { recursive: true })
    .map((name) => join(folder, name))
    .filter((name) => statSync(join(root, name)).isFile())
    .sort()
}

/** Makes something when it was made of something else; the stamp lies in what is made, and is gone with it. */
function stamped(stamp, value, make) {
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === value) return
  make()
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, value)
}

export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (result.error) throw result.error
  return result
}

function must(command, args, options) {
  const { status } = run(command, args, options)
  if (status !== 0) {
    console.error(`\n“${command} ${args.join(' ')}” failed (${status}). What it printed above says why.`)
    process.exit(2)
  }
}

/** `npm ci`, when the lock file is not the one that was installed. What npm prints goes to stderr. */
export function install() {
  stamped(join(cache, 'installed'), digest(['package-lock.json']), () => {
    console.error('Installing packages …')
    must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: ['ignore', 2, 2] })
  })
}

/** The production build, when a source changed since the last one. */
export function build() {
  const sources = [
    ...['app', 'core', 'server', 'public'].filter((f) => existsSync(join(root, f))).flatMap(filesIn),
    'package-lock.json',
    'docs/guide.md',
    'vite.config.ts',
    'react-router.config.ts',
    'scripts/setup.mjs',
  ]
  stamped(join(root, 'build/.made-of'), digest(sources), () => {
    console.error('Building …')
    must(process.execPath, [join(root, 'node_modules/@react-router/dev/bin.js'), 'build'], {
      stdio: ['ignore', 2, 2],
      env: { ...process.env, NODE_ENV: 'production' },
    })
    bundleServiceWorker()
    compressAssets()
  })
}

/** The service worker, told every built file and every route, whose shells it is to keep as well. */
function bundleServiceWorker() {
  const { buildSync } = createRequire(import.meta.url)('esbuild')
  const files = filesIn('build/client')
  const built = digest([...files, ...filesIn('build/server')]).slice(0, 16)
  const kept = files.map((file) => ({
    url: file.slice('build/client'.length),
    // Names in /assets/ hold a hash already.
    revision: file.startsWith('build/client/assets/') ? null : digest([file]).slice(0, 16),
  }))
  const manifest = files.find((file) => /\/manifest-\w+\.js$/.test(file))
  const text = readFileSync(join(root, manifest), 'utf8')
  const { routes } = JSON.parse(text.slice(text.indexOf('{'), text.lastIndexOf('}') + 1))
  buildSync({
    entryPoints: [join(root, 'app/offline/service-worker.ts')],
    outfile: join(root, 'build/client/service-worker.js'),
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    logLevel: 'error',
    define: {
      'process.env.NODE_ENV': '"production"',
      __FILES__: JSON.stringify(kept),
      __ROUTES__: JSON.stringify(
        Object.values(routes).map(({ id, parentId, path, hasDefaultExport }) => ({
          id,
          parentId,
          path,
          hasDefaultExport,
        })),
      ),
      __BUILT__: JSON.stringify(built),
    },
  })
}

/** Beside each built file that shrinks by it, the same compressed: the server hands that to browsers that take it. */
function compressAssets() {
  for (const file of filesIn('build/client').filter((f) => /\.(?:js|css|html|svg|json)$/.test(f))) {
    const bytes = readFileSync(join(root, file))
    if (bytes.length < 1024) continue
    writeFileSync(join(root, `${file}.gz`), gzipSync(bytes, { level: 9 }))
    writeFileSync(join(root, `${file}.br`), brotliCompressSync(bytes))
  }
}

/**
 * A program of ours as plain JavaScript in a folder of its own for each state of the sources in `folders`; returns its main
 * file. What is imported on demand, and the packages, which stay outside, are loaded when they are asked for: a short
 * command starts in half of the time.
 */
export function bundled(entry, folders) {
  const name = dirname(entry)
  const state = digest([
    ...folders.flatMap(filesIn),
    'package-lock.json',
    'package.json',
    'scripts/setup.mjs',
  ])
  const folder = join(cache, `${name}-${state.slice(0, 16)}`)
  const main = join(folder, 'main.mjs')
  if (existsSync(main)) return main
  const { buildSync } = createRequire(import.meta.url)('esbuild')
  // Whole or not at all: another command may be making the same.
  const made = `${folder}.${process.pid}`
  buildSync({
    entryPoints: { main: join(root, entry) },
    outdir: made,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  })
  try {
    renameSync(made, folder)
  } catch (error) {
    rmSync(made, { recursive: true, force: true })
    if (!existsSync(main)) throw error
  }
  // Of earlier states, what no command can still be running from.
  const yesterday = Date.now() - 24 * 60 * 60 * 1000
  for (const other of readdirSync(cache).filter((file) => file.startsWith(`${name}-`)))
    if (statSync(join(cache, other)).mtimeMs < yesterday)
      rmSync(join(cache, other), { recursive: true, force: true })
  return main
}
