import type { PageFacts, Place } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

const ofHead = /^(?:description|robots|viewport|keywords|author|theme-color|(?:og|twitter|article):.*)$/

/** What was meant for the head and fell into the body, in order. */
function spilled(page: PageFacts): { what: string; place: Place }[] {
  const out = [
    ...page.titles.filter((t) => !t.inHead).map((place) => ({ what: 'the title', place })),
    ...page.canonicals.filter((c) => !c.inHead).map((place) => ({ what: 'the canonical', place })),
    ...page.metas
      .filter((m) => !m.inHead && ofHead.test(m.name))
      .map((place) => ({ what: `the meta “${place.name}”`, place })),
  ]
  return out.sort((a, b) => a.place.start - b.place.start)
}

/** Something not allowed in the head closed it, so that what stands behind it is no longer in it. */
export const shellHeadSpill = rule({
  id: 'shell-head-spill',
  family: 'shell',
  shownOn: { head: 'metas' },
  severity: 'flaw',
  sign: 'order',
  name: 'Head closed too early',
  basis: 'WHATWG HTML 13.2.6.4.4: what is not allowed in the head closes it',
  why: 'Everything after it counts as part of the body, where search engines ignore it.',
  mend: 'Move what does not belong in the head into the body.',
  needs: ['head', 'text'],
  message: ({ list, count }) =>
    `This closed the head, so that ${list}${count === 1 ? ' is' : ' are'} no longer in it.`,
  check({ page }, mark) {
    const { bodyStart } = page
    if (!bodyStart) return
    // Only what the source has before any landmark or heading was meant for the head; the rest is misplaced, not spilled.
    const content = Math.min(
      page.landmarks[0]?.start ?? Infinity,
      page.headings[0]?.start ?? Infinity,
      page.main.text === '' ? Infinity : page.length,
    )
    const lost = spilled(page).filter((s) => s.place.start >= bodyStart.start && s.place.start < content)
    if (lost.length === 0) return
    const names = [...new Set(lost.map((s) => s.what))]
    mark(bodyStart, {
      list: names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : names[0]!,
      count: names.length,
    })
  },
  examples: {
    clean: [
      '<head><title>x</title><meta name=description content=y></head><body><p>x</p></body>',
      '<head><title>x</title></head><body><main><meta name=description content=y></main></body>',
      '<head><title>x</title></head><body><svg><title>z</title></svg></body>',
    ],
    marked: [
      {
        html: '<head><meta charset=utf-8><div>Oh</div><title>x</title><meta name=description content=y></head><body><h1>x</h1>',
        at: '<div',
        says: /closed the head, so that the title and the meta “description” are no longer in it/,
      },
      {
        html: '<head><img src=p.gif><link rel=canonical href="/x"></head><body><h1>x</h1>',
        at: '<img',
        says: /the canonical is no longer/,
      },
    ],
  },
})
