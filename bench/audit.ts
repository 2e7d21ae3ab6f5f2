/** `quill audit` on a generated site of 20,000 pages: jobs, memory, and what a page takes as the site grows. Linux only. */
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { say } from './ratio.ts'

const PAGES = 20_000
const FEW = 1000
const RUNS = 5

function generate(folder: string, pages: number): void {
  for (let f = 0; f < 40; f++) mkdirSync(join(folder, `f${f}`), { recursive: true })
  const link = (i: number, k: number) =>
    `<a href="/f${(i + k) % 40}/${(i + k * 37) % pages}.html">Lamp ${k}</a>`
  for (let i = 0; i < pages; i++)
    writeFileSync(
      join(folder, `f${i % 40}/${i}.html`),
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Lamp ${i} by Oldshire</title><meta name="description" content="Lamp number ${i}, made on the island by hand."></head><body><nav>${Array.from({ length: 12 }, (_, k) => link(i, k)).join(' ')}</nav><main><h1>Lamp ${i}</h1>${Array.from({ length: 5 }, (_, k) => `<h2>Part ${k} of ${i}</h2><p>${'It burns for hours on one filling of oil. '.repeat(6)}</p>`).join('')}</main></body></html>`,
    )
}

/** Kibibytes at their highest so far, of a process and of those that it started. */
function peakOf(pid: number, peaks: Map<number, number>): void {
  try {
    const status = readFileSync(`/proc/${pid}/status`, 'utf8')
    peaks.set(pid, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0))
    for (const task of readdirSync(`/proc/${pid}/task`))
      for (const child of readFileSync(`/proc/${pid}/task/${task}/children`, 'utf8')
        .split(' ')
        .filter(Boolean))
        peakOf(Number(child), peaks)
  } catch {
    // It has ended.
  }
}

/** One run: how long it took, and the most memory that its processes held, each at its own highest. */
async function run(folder: string, jobs: number): Promise<{ ms: number; mb: number }> {
  const start = performance.now()
  const child = spawn(
    process.execPath,
    ['scripts/quill.mjs', 'audit', folder, '--format', 'csv', '--jobs', String(jobs)],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  child.stdout.resume()
  const peaks = new Map<number, number>()
  const watch = setInterval(() => peakOf(child.pid!, peaks), 200)
  await new Promise((resolve) => child.on('close', resolve))
  clearInterval(watch)
  return { ms: performance.now() - start, mb: [...peaks.values()].reduce((a, b) => a + b, 0) / 1024 }
}

export async function benchAudit(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'kq-bench-audit-'))
  try {
    const [one, few, many] = [1, FEW, PAGES].map((pages) => {
      const site = join(folder, String(pages))
      generate(site, pages)
      return site
    })
    // Taken in turns, so that what slows the machine for a while slows all of them.
    const best = { start: Infinity, few: Infinity, one: Infinity, two: Infinity }
    let [mbOne, mbTwo] = [0, 0]
    for (let i = 0; i < RUNS; i++) {
      best.start = Math.min(best.start, (await run(one!, 1)).ms)
      best.few = Math.min(best.few, (await run(few!, 1)).ms)
      const single = await run(many!, 1)
      const double = await run(many!, 2)
      best.one = Math.min(best.one, single.ms)
      best.two = Math.min(best.two, double.ms)
      mbOne = Math.max(mbOne, single.mb)
      mbTwo = Math.max(mbTwo, double.mb)
    }
    console.log('')
    say(`audit of ${PAGES} pages, 2 jobs ÷ 1`, best.one / best.two, 'aim 1.6 times as fast')
    say(
      `time a page, ${PAGES} ÷ ${FEW} pages, without the start`,
      (best.one - best.start) / PAGES / ((best.few - best.start) / FEW),
      'at most 1.1',
    )
    say('memory at its highest with one job, MB', mbOne, 'at most 600')
    say('memory at its highest with two jobs, all processes, MB', mbTwo, 'at most 1,000')
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
