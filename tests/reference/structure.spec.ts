/**
 * The demo site's structure against axe-core's verdicts (its rules' own documentation) and Chromium's accessibility
 * tree; every repair's bytes, marks and picture. `npm run check-real` does the same on 300 real pages.
 */
import { expect, test } from '@playwright/test'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { isPagePath } from '../../core/addresses/addresses.ts'
import { DEMO, filesOf } from '../e2e/helpers.ts'
import { audit, disagreements, looksAlike, repairAll, show, verdicts } from '../fixtures/structure.ts'

const pages = [...filesOf(DEMO)].filter(([path]) => isPagePath(path))
const urlOf = (path: string) => 'https://pages.example/' + path.split('/').map(encodeURIComponent).join('/')

test('headings, landmarks, pictures, language, viewport and ids of the demo are what axe-core and the accessibility tree say', async ({
  page,
}) => {
  const found: string[] = []
  for (const [path, bytes] of pages) {
    const read = readSource(bytes)
    if (!read.ok) continue
    const url = urlOf(path)
    const facts = readPage(read.source, { path, url })
    await show(page, url, bytes)
    for (const d of disagreements(facts, audit(facts), await verdicts(page))) found.push(`${path}: ${d}`)
  }
  expect(pages.length).toBeGreaterThan(40)
  expect(found).toEqual([])
})

test('every repair of the demo changes its own bytes alone, takes its mark away, and leaves the picture as it was', async ({
  page,
}) => {
  await page.setViewportSize({ width: 800, height: 600 })
  const wrong: string[] = []
  let repairs = 0
  let pictures = 0
  for (const [path, bytes] of pages) {
    const read = readSource(bytes)
    if (!read.ok) continue
    const url = urlOf(path)
    const result = repairAll(read.source, { path, url })
    repairs += result.count
    for (const w of result.wrong) wrong.push(`${path}: ${w}`)
    if (!result.drawn) continue
    pictures++
    if (!(await looksAlike(page, url, bytes, result.drawn.source.bytes)))
      wrong.push(`${path}: the picture differs`)
  }
  console.log(`${repairs} repairs, ${pictures} pages drawn before and after`)
  expect(repairs).toBeGreaterThan(20)
  expect(wrong).toEqual([])
})
