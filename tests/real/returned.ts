/** What a site is given and takes in again, on real pages and from real office files. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readSheet, writeOffice } from '../../core/exchange/sheet.ts'
import { countReturns } from '../fixtures/count-returns.ts'
import { corpus, packages, pagesOf } from './corpora.ts'

type Check = (what: string, ok: boolean, detail?: string) => void

const RETURNS = 2000
const SEED = 20261126

/** 2,000 generated returns of real pages: of drafted targets hardly any wrong, none of them in silence, hardly any lost. */
export function matchReturns(check: Check): void {
  const pages = packages.flatMap((name) => pagesOf(corpus(name))).map(({ read }) => read)
  const counts = countReturns(pages, RETURNS, SEED)
  const { drafted, wrong, wrongSilently, lost, targets, wrongTargets, lostTargets } = counts
  const share = (n: number, of: number) => `${((100 * n) / of).toFixed(3)} %`
  check(`${RETURNS} returns were made of ${pages.length} pages`, counts.returns === RETURNS)
  check(
    `of ${drafted} drafted targets at most 0.05 % are matched wrong`,
    wrong <= drafted * 0.0005,
    `${wrong}, ${share(wrong, drafted)} ${counts.examples.slice(0, 3).join('; ')}`,
  )
  check('none of them without a question', wrongSilently === 0, String(wrongSilently))
  check('at most 1 % are lost', lost <= drafted * 0.01, `${lost}, ${share(lost, drafted)}`)
  console.log(
    `        all ${targets} blocks of text: wrong ${share(wrongTargets, targets)}, lost ${share(lostTargets, targets)}`,
  )
  for (const [status, { all, told }] of Object.entries(counts.byClass))
    console.log(`        ${status}: ${told} of ${all} told so`)
}

const ROWS = [
  ['Page URL', 'Title', 'Words'],
  ['https://s.example/färgen/', 'Färgen til fyret: “afgange” – €', '412'],
  ['https://s.example/b;c', 'Semicolons; commas, and "quotes"', '90'],
]

/** A sheet's cells as JSON, or why it cannot be read. */
async function rowsOf(file: string): Promise<string> {
  try {
    const read = await readSheet(readFileSync(file))
    return read.ok ? JSON.stringify([read.sheet.heading, ...read.sheet.rows]) : read.why
  } catch (error) {
    return (error as Error).message
  }
}

/** LibreOffice's own XLSX, ODS and CSV are read, and what we write is read by it. */
export async function readOfficeFiles(check: Check): Promise<void> {
  const soffice = (args: string[]) => spawnSync('soffice', ['--headless', ...args], { encoding: 'utf8' })
  if (soffice(['--version']).error) {
    spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'libreoffice-calc-nogui'], {
      stdio: 'ignore',
    })
    if (soffice(['--version']).error)
      return check(
        'sheets of LibreOffice',
        false,
        'LibreOffice (Debian’s libreoffice-calc-nogui) cannot be installed',
      )
  }
  const dir = mkdtempSync(join(tmpdir(), 'kq-sheets-'))
  const cell = (text: string) => `"${text.replaceAll('"', '""')}"`
  writeFileSync(join(dir, 'in.csv'), ROWS.map((row) => row.map(cell).join(',')).join('\r\n'))
  const convert = (file: string, to: string, filter = '') =>
    soffice([
      `-env:UserInstallation=file://${dir}/profile`,
      ...(filter ? [filter] : []),
      '--convert-to',
      to,
      '--outdir',
      dir,
      join(dir, file),
    ])
  // 44: comma, 34: double quote, 76: UTF-8. Source: LibreOffice help, filter options for CSV.
  const asUtf8 = '--infilter=CSV:44,34,76'
  for (const [form, to] of [
    ['in.xlsx', 'xlsx'],
    ['in.ods', 'ods'],
    ['semicolons and windows-1252', 'csv:Text - txt - csv (StarCalc):59,34,1'],
    ['tabs and UTF-16', 'csv:Text - txt - csv (StarCalc):9,34,65535'],
  ] as const) {
    const file = to.startsWith('csv') ? 'again.csv' : `in.${to}`
    if (to.startsWith('csv')) writeFileSync(join(dir, 'again.ods'), readFileSync(join(dir, 'in.ods')))
    convert(to.startsWith('csv') ? 'again.ods' : 'in.csv', to, to.startsWith('csv') ? '' : asUtf8)
    const said = await rowsOf(join(dir, file))
    const ok = said === JSON.stringify(ROWS)
    check(`LibreOffice’s ${form} is read`, ok, ok ? '' : said.slice(0, 300))
  }
  for (const form of ['xlsx', 'ods'] as const) {
    writeFileSync(join(dir, `ours.${form}`), await writeOffice([...ROWS, ['=1+1', '', '']], form))
    convert(`ours.${form}`, 'csv:Text - txt - csv (StarCalc):44,34,76')
    const text = readFileSync(join(dir, 'ours.csv'), 'utf8')
    check(
      `our ${form} is read by LibreOffice, its formulas as text`,
      text.includes('Färgen til fyret') && text.includes('=1+1'),
      text.slice(0, 200),
    )
  }
}
