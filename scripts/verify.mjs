/**
 * Everything that must hold, from a fresh clone: installs, installs Debian's Chromium where it is missing, checks the
 * lock file, types, lint and formatting, runs unit, end-to-end and reference tests. Its last line counts them all.
 */
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { build, install, root, run } from './setup.mjs'

let passed = 0
let failed = 0
/** What failed, by name, said once more at the end: the last lines are what is kept of a run. */
const failures = []
const started = Date.now()

function fail(name) {
  failed++
  failures.push(name)
}

function step(name, command, args, options) {
  console.log(`\n── ${name}`)
  const ok = run(command, args, options).status === 0
  if (ok) passed++
  else fail(name)
  console.log(`${ok ? 'passed' : 'FAILED'}: ${name}`)
  return ok
}
/** Steps that use one processor each, two at a time; what they say is printed whole, in their order. */
async function together(steps) {
  const waiting = [...steps.keys()]
  const done = steps.map(() => null)
  async function work() {
    for (let i = waiting.shift(); i !== undefined; i = waiting.shift()) {
      const [, command, args] = steps[i]
      done[i] = await new Promise((resolve) => {
        const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
        let said = ''
        child.stdout.on('data', (chunk) => (said += chunk))
        child.stderr.on('data', (chunk) => (said += chunk))
        child.on('error', (error) => resolve({ ok: false, said: error.message }))
        child.on('close', (status) => resolve({ ok: status === 0, said }))
      })
    }
  }
  await Promise.all([work(), work()])
  steps.forEach(([name], i) => {
    const { ok, said } = done[i]
    console.log(`\n── ${name}\n${said}${ok ? 'passed' : 'FAILED'}: ${name}`)
    if (ok) passed++
    else fail(name)
  })
}
const node = (...args) => [process.execPath, args]
const bin = (file) => join(root, 'node_modules', file)

function finish() {
  console.log(`\n${Math.round((Date.now() - started) / 1000)} seconds`)
  for (const failure of failures) console.log(`FAILED: ${failure}`)
  console.log(`${passed} passed, ${failed} failed`)
  process.exit(failed > 0 ? 1 : 0)
}

/** Debian's Chromium, by apt where it is missing and apt is there. */
function chromium() {
  if (existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) return true
  console.log('\n── Chromium is missing: installing Debian’s')
  const quiet = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  }
  spawnSync('apt-get', ['update'], quiet)
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], quiet)
  return existsSync('/usr/bin/chromium')
}

/** Adds a runner's own counts, so that a test that was skipped or never ran is not counted as passed. */
function counted(name, command, args, report, read, env = {}) {
  console.log(`\n── ${name}`)
  const { status } = run(command, args, { env: { ...process.env, ...env } })
  let counts = { passed: 0, failed: 0, failures: [] }
  try {
    counts = read(JSON.parse(readFileSync(report, 'utf8')))
  } catch {
    // No report: the run broke before its end, which is counted below.
  }
  if (counts.failed === 0 && (status !== 0 || counts.passed === 0)) {
    counts.failed = 1
    counts.failures.push(`${name}: ended with ${status}`)
  }
  passed += counts.passed
  failed += counts.failed
  failures.push(...counts.failures)
}

/** The first lines of what a test said when it failed, as one line. */
const said = (text) =>
  (text ?? '')
    .replaceAll(/\u001B\[\d+m/g, '')
    .split('\n')
    .slice(0, 12)
    .join(' | ')
    .slice(0, 900)

/** Names of the end-to-end tests that failed, with what they said, through all nested suites. */
function failedSpecs(suite) {
  return [
    ...(suite.suites ?? []).flatMap(failedSpecs),
    ...(suite.specs ?? [])
      .filter((spec) => !spec.ok)
      .map((spec) => `${spec.file}: ${spec.title}: ${said(spec.tests[0]?.results.at(-1)?.error?.message)}`),
  ]
}

install()
const out = mkdtempSync(join(tmpdir(), 'keen-quill-'))
step('The lock file can be installed', 'npm', ['ci', '--dry-run', '--silent', '--no-audit'], {
  stdio: ['ignore', 'ignore', 'inherit'],
})
step('Route types', ...node(bin('@react-router/dev/bin.js'), 'typegen'))
await together([
  ['Lint', ...node(bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0')],
  [
    'Order of imports, no circles',
    ...node(
      bin('dependency-cruiser/bin/dependency-cruise.mjs'),
      '--config',
      '.dependency-cruiser.mjs',
      'core',
      'app',
      'server',
      'cli',
    ),
  ],
  ['Formatting', ...node(bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.')],
  ['Types', ...node(bin('typescript/bin/tsc'), '--noEmit')],
  ['Types of the core, alone', ...node(bin('typescript/bin/tsc'), '--noEmit', '-p', 'core')],
])

const unit = join(out, 'unit.json')
counted(
  'Unit tests',
  ...node(bin('vitest/vitest.mjs'), 'run', '--reporter=dot', '--reporter=json', `--outputFile=${unit}`),
  unit,
  (r) => ({
    passed: r.numPassedTests,
    failed:
      r.numFailedTests +
      r.numPendingTests +
      r.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length,
    failures: r.testResults.flatMap((file) => {
      const tests = file.assertionResults.filter((t) => t.status !== 'passed')
      return tests.length > 0
        ? tests.map((t) => `${relative(root, file.name)}: ${t.fullName}: ${said(t.failureMessages?.[0])}`)
        : file.status === 'failed'
          ? [`${relative(root, file.name)}: ${said(file.message)}`]
          : []
    }),
  }),
)

build()
if (chromium()) {
  const e2e = join(out, 'e2e.json')
  counted(
    'End-to-end and reference tests',
    // Those that are marked as long look at further stages of views that others look at: `npm run e2e` has them all.
    ...node(bin('@playwright/test/cli.js'), 'test', '--grep-invert', '@long'),
    e2e,
    (r) => ({
      passed: r.stats.expected + r.stats.flaky,
      failed: r.stats.unexpected + r.stats.skipped,
      failures: r.suites.flatMap(failedSpecs),
    }),
    { KEEN_QUILL_REPORT: e2e },
  )
} else {
  console.log(
    '\nFAILED: there is no Chromium, so nothing could be tried in a browser. Install Debian’s package chromium.',
  )
  fail('Chromium is missing')
}
finish()
