/** A small part of `npm run fuzz`; and every input that once failed. */
import { describe, expect, it } from 'vitest'
import { tryOne, type Kind } from '../fuzz/fuzz.ts'
import { found } from '../fuzz/found.ts'

const SEED = 1861
const counts: Record<Kind, number> = { pages: 400, json: 200, csv: 100, zip: 60, project: 60 }

describe('invented input', () => {
  it.each(Object.entries(counts) as [Kind, number][])(
    '%s: %i, none throws or loses a byte',
    (kind, count) => {
      const wrong = Array.from({ length: count }, (_, i) => [SEED + i, tryOne(kind, SEED + i)]).filter(
        ([, w]) => w,
      )
      expect(wrong).toEqual([])
    },
  )
  it.each(found)('once failed: %s, seed %i', (kind, seed) => expect(tryOne(kind, seed)).toBeNull())
})
