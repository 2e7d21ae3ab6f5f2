import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChanges, changesFor, stateOf, type Decisions } from './decisions.ts'
import { mergeWork, settledWork, type Dispute, type Merged } from './merge-work.ts'

type Work = ReadonlyMap<string, Decisions>
const plainObject = { noNullPrototype: true } as const
const text = fc.constantFrom('a', 'b', 'c')
const list = fc.uniqueArray(text, { minLength: 1, maxLength: 3 })
const decisions = fc.record(
  {
    'edit:title': fc.record({ value: text }, plainObject),
    'edit:meta:description': fc.record({ value: text }, plainObject),
    'edit:alt@12': fc.record({ value: text }, plainObject),
    'keyword:primary': text,
    'keyword:secondary': list,
    'takes:title': list.map((texts) => texts.map((of) => ({ text: of, from: '' }))),
    'stet:title-long|title': fc.record({ fingerprint: text, reason: text, date: text }, plainObject),
    note: text,
    state: fc.constantFrom('drafted', 'approved', 'handed off'),
  },
  { requiredKeys: [], ...plainObject },
) as fc.Arbitrary<Decisions>
const work: fc.Arbitrary<Work> = fc
  .dictionary(fc.constantFrom('', 'p1', 'p2', 'p3'), decisions, plainObject)
  .map(
    (of) =>
      new Map(
        // The site as a whole has no state.
        Object.entries(of).map(([page, { state, ...rest }]) => [
          page,
          page === '' || !state ? rest : { ...rest, state },
        ]),
      ),
  )

/** Work as it stands when the merge was decided as the application decides: one decision after another. */
function after(ours: Work, taken: Merged['taken']): Map<string, Decisions> {
  const result = new Map(ours)
  for (const { page, key, after: value } of taken) {
    const now = result.get(page) ?? {}
    result.set(page, applyChanges(now, changesFor(page, now, key, value)))
  }
  return result
}
const plain = (of: Work) =>
  [...of]
    .filter(([, decided]) => Object.keys(decided).length > 0)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([page, decided]) => [
      page,
      stateOf(decided),
      Object.entries(decided)
        .filter(([key]) => key !== 'state')
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    ])

describe('two people’s work as one', () => {
  it('holds everything that only one of them decided, and each dispute once', () =>
    fc.assert(
      fc.property(work, work, (ours, theirs) => {
        const merged = mergeWork(ours, theirs)
        const result = after(
          ours,
          settledWork(merged, () => false),
        )
        const disputed = merged.disputes.map(({ page, key }) => `${page}|${key}`)
        expect(new Set(disputed).size).toBe(disputed.length)
        for (const side of [ours, theirs])
          for (const [page, decided] of side)
            for (const [key, value] of Object.entries(decided)) {
              if (key === 'state') continue
              const [our, their] = [ours.get(page)?.[key], theirs.get(page)?.[key]]
              const isOnlyOnes = our === undefined || their === undefined
              const isJoined = Array.isArray(value)
              const isDisputed = !isOnlyOnes && !isJoined && JSON.stringify(our) !== JSON.stringify(their)
              expect(disputed.includes(`${page}|${key}`)).toBe(isDisputed)
              if (isOnlyOnes) expect(result.get(page)?.[key]).toEqual(value)
              if (isJoined) expect(result.get(page)?.[key]).toEqual(expect.arrayContaining(value))
            }
      }),
    ))
  it('comes out the same whichever is called ours, for the same answers', () =>
    fc.assert(
      fc.property(work, work, fc.func(fc.boolean()), (a, b, choose) => {
        // The answer is for one person's wording, whoever holds the sheet.
        const isB = ({ page, key }: Dispute) => choose(page, key)
        const one = after(a, settledWork(mergeWork(a, b), isB))
        const other = after(
          b,
          settledWork(mergeWork(b, a), (dispute) => !isB(dispute)),
        )
        const lists = (of: Work) => JSON.stringify(plain(of))
        expect(lists(sorted(one))).toBe(lists(sorted(other)))
      }),
      { numRuns: 1000 },
    ))
  it('changes nothing where both have decided the same', () =>
    fc.assert(
      fc.property(work, (of) => {
        expect(mergeWork(of, of)).toEqual({ taken: [], disputes: [] })
      }),
    ))
  it('never has a draft approved that neither of them saw', () =>
    fc.assert(
      fc.property(decisions, decisions, (a, b) => {
        const result = after(
          new Map([['p', a]]),
          settledWork(mergeWork(new Map([['p', a]]), new Map([['p', b]])), () => true),
        ).get('p')!
        const edits = (of: Decisions) =>
          JSON.stringify(
            Object.entries(of)
              .filter(([key]) => key.startsWith('edit:'))
              .sort(),
          )
        if (stateOf(result) !== 'drafted' && stateOf(result) !== 'untouched')
          expect([a, b].some((of) => stateOf(of) === stateOf(result) && edits(of) === edits(result))).toBe(
            true,
          )
      }),
    ))
})

/** Lists that only one of them has, or both alike, keep their order: told apart from what is in them. */
const sorted = (of: Work): Work =>
  new Map(
    [...of].map(([page, decided]) => [
      page,
      Object.fromEntries(
        Object.entries(decided).map(([key, value]) => [
          key,
          Array.isArray(value) ? [...(value as unknown[])].map((v) => JSON.stringify(v)).sort() : value,
        ]),
      ),
    ]),
  )
