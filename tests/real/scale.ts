/** The recipe of docs/scale.md: parts run by GNU parallel with two workers, merged, are one run byte for byte. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { corpus, pagesOf } from './corpora.ts'

type Check = (what: string, ok: boolean, detail?: string) => void

const PARTS = 4
const SITE = 'git-doc'

export function partsUnderParallel(check: Check): void {
  const shell = (command: string) =>
    spawnSync('bash', ['-c', command], { encoding: 'utf8', maxBuffer: 1 << 30 })
  if (shell('parallel --version').status !== 0) shell('apt-get install -y --no-install-recommends parallel')
  const folder = corpus(SITE)
  const work = mkdtempSync(join(tmpdir(), 'kq-parts-'))
  const audit = `node scripts/quill.mjs audit ${folder} --base-url https://docs.example/ --date 2026-11-26`
  try {
    const run = shell(
      `parallel --will-cite --jobs 2 '${audit} --shard {}/${PARTS} --out ${work}/{}' ::: $(seq 1 ${PARTS})`,
    )
    const merged = shell(`node scripts/quill.mjs merge ${work}/* --format json`)
    const one = shell(`${audit} --jobs 1 --format json`)
    check(
      `${SITE}, ${pagesOf(folder).length} pages in ${PARTS} parts by GNU parallel, merged: one run byte for byte`,
      run.status === 0 && one.stdout.length > 1000 && merged.stdout === one.stdout,
      run.stderr.slice(0, 300) || merged.stderr.slice(0, 300),
    )
  } finally {
    rmSync(work, { recursive: true, force: true })
  }
}
