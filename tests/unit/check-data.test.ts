/** Whole documents: right ones have no mark, wrong ones just those that they should have, at their pointers. */
import { describe, expect, test } from 'vitest'
import { dataFileOfDocument, dataReports } from '../../core/exchange/data-report.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import { invalidDocuments, validDocuments } from '../fixtures/data-documents.ts'
import { ourThings, referenceThings } from '../fixtures/expansion.ts'

const base = 'https://farrowskerry.example/'
const reportOf = (data: object | string) => {
  const text = typeof data === 'string' ? data : JSON.stringify(data, null, 2)
  const file = dataFileOfDocument('a.jsonld', base + 'a.jsonld', new TextEncoder().encode(text))
  const {
    files: [report],
  } = dataReports(
    [{ path: file.path, read: () => ({ ok: true, value: file }) }],
    defaultStyle,
    '2026-11-25',
    base,
    false,
  )
  return report!.blocks[0]!
}
/** What is merely recommended or retired is right all the same. */
const wrong = (data: object | string) =>
  reportOf(data).marks.filter((m) => m.rule !== 'data-recommended' && m.rule !== 'data-retired')

describe('documents that are right', () => {
  test.each(Object.entries(validDocuments))('%s', (_, data) => {
    expect(wrong(data).map((m) => `${m.pointer} ${m.message}`)).toEqual([])
    const { features } = reportOf(data)
    expect(features.filter((f) => !f.eligible)).toEqual([])
  })
  test('show every feature that is still shown', () => {
    const shown = new Set(
      Object.values(validDocuments).flatMap((d) => reportOf(d).features.map((f) => f.feature)),
    )
    for (const id of 'Article BreadcrumbList Course Dataset DiscussionForumPosting Event FAQPage JobPosting LocalBusiness Organization Product Review AggregateRating ProfilePage QAPage Recipe WebSite SoftwareApplication VideoObject'.split(
      ' ',
    ))
      expect([...shown]).toContain(id)
  })
  test.each(Object.entries(validDocuments))('%s is read as the reference reads it', async (_, data) => {
    const json = JSON.stringify(data)
    expect(ourThings(json)).toEqual(await referenceThings(json))
  })
})

describe('documents with something wrong', () => {
  test.each(Object.entries(invalidDocuments))('%s', (_, { data, marks }) => {
    expect(wrong(data).map((m) => `${m.rule} ${m.pointer}`)).toEqual(marks)
  })
  test('are sixty at least', () => {
    expect(Object.values(invalidDocuments).filter((d) => d.marks.length > 0).length).toBeGreaterThanOrEqual(
      60,
    )
  })
})
