import { describe, expect, it } from 'vitest'
import type { Result } from './line-up.ts'
import { ownResult } from './own-result.ts'

const result = (position: number, url: string, title: string, description = 'D'): Result => ({
  position,
  url,
  title,
  description,
  trail: [],
  date: null,
  rating: null,
  price: null,
})
const answer = (...results: Result[]) => ({
  phrase: 'p',
  market: '',
  asOf: '2026-11-20',
  results,
  questions: [],
})
const own = [
  { title: 'Tides', description: 'When the water comes.' },
  { title: 'Tides and moons', description: null },
]

describe('where a page stands', () => {
  it('is its highest place, at any of its addresses', () =>
    expect(
      ownResult(
        answer(
          result(7, 'https://s.example/tides', 'Tides'),
          result(4, 'https://s.example/old', 'Tides'),
          result(1, 'https://o.example/tides', 'Tides'),
        ),
        ['https://s.example/tides', 'https://s.example/old'],
        own,
      ),
    ).toMatchObject({ position: 4 }))
  it('is nothing where it is not among them', () =>
    expect(ownResult(answer(result(1, 'https://o.example/', 'T')), ['https://s.example/'], own)).toBeNull())
  it.each([
    ['Tides', 'When the water comes.', 'own'],
    ['Tides and moons', 'When the …', 'own'],
    ['Tides', 'The sea, and what it does.', 'own title'],
    ['All about water', 'When the water comes.', 'own description'],
    ['Tides and …', 'Engine’s words …', 'own title'],
    ['…', '…', 'another'],
  ])('says whose wording %s: %s is', (title, description, wording) =>
    expect(
      ownResult(answer(result(1, 'https://s.example/', title, description)), ['https://s.example/'], own),
    ).toMatchObject({ wording }),
  )
})
