/** What the window lays over the worker's last answer is what the worker answers a moment later. */
import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { writeZip } from '../../../core/exchange/zip.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { Decisions } from '../../../core/work/decisions.ts'
import * as desk from '../../workers/desk.ts'
import { takeIn } from '../../workers/intake.ts'
import { prepare } from '../../workers/open-input.ts'
import { linesOf } from './outline-lines.ts'

const HEADINGS = [
  '<h1>Tides</h1>',
  '<h2>Spring</h2>',
  '<h4 class="t">Neap</h4>',
  '<h2>Ebb</h2>',
  '<h3>Flow</h3>',
]
const HTML = `<!doctype html><html lang="en"><head><title>Tides</title></head><body><main>${HEADINGS.map((h) => `${h}\n<p>Water, twice a day, as the moon has it.</p>\n`).join('')}</main></body></html>`
const keys = HEADINGS.map((heading) => `edit:heading@${HTML.indexOf(heading)}`)

it('on a page with any two drafts of its headings, one after the other', async () => {
  const zip = writeZip([['index.html', new TextEncoder().encode(HTML)]])
  const prepared = await prepare({ kind: 'zip', file: new File([zip as BlobPart], 'tides.zip') })
  if (!prepared.ok) throw new Error(prepared.why)
  const taken = await takeIn(
    {
      ticket: prepared.prepared.ticket,
      name: 'Tides',
      base: 'https://t.example/',
      today: '2026-11-23',
      demo: false,
    },
    () => {},
  )
  if (!taken.ok) throw new Error(taken.why)
  const opened = await desk.openSite(taken.site.id, '2026-11-23')
  const page = opened!.rows[0]!.id
  const viewOf = async (decisions: Decisions) => (await desk.evaluatePage(page, decisions))!.view

  const kept: fc.Arbitrary<Edit | null>[] = [
    fc.constant(null),
    fc.record({ level: fc.integer({ min: 1, max: 6 }) }),
    fc.constant({ tag: 'p' }),
    fc.constantFrom('Rise', 'Fall & rise').map((value) => ({ value })),
  ]
  const draftOf = (edit: fc.Arbitrary<Edit | null>) =>
    fc
      .tuple(...keys.map(() => edit))
      .map((edits): Decisions => Object.fromEntries(edits.flatMap((e, i) => (e ? [[keys[i]!, e]] : []))))
  // What was taken out is not in the answer, and comes back with the next one.
  const earlier = draftOf(fc.oneof(...kept))
  const later = draftOf(fc.oneof(...kept, fc.constant({ remove: true })))
  await fc.assert(
    fc.asyncProperty(earlier, later, async (before, after) => {
      const shape = (view: Awaited<ReturnType<typeof viewOf>>) =>
        linesOf(view, after).map((line) => `${line.kind} ${line.level} ${line.text}`)
      expect(shape(await viewOf(before)).sort()).toEqual(shape(await viewOf(after)).sort())
    }),
    { numRuns: 60 },
  )
})
