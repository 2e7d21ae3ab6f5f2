/** Line-ups: figures against a slow, plain count; numbers and years in five languages; what the model of the eye promises. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Chance } from '../../tests/fuzz/fuzz.ts'
import { defaultSlots, measure } from '../measure/snippet.ts'
import { compileKeyword } from '../words/match.ts'
import { languageOf } from '../words/stem.ts'
import { whereTheEyeLands, type EyeLine } from './eye.ts'
import {
  compareLineUp,
  numbersIn,
  phrasePlace,
  resultsAnswerSchema,
  withoutOurs,
  type Result,
} from './line-up.ts'

const result = (position: number, title: string, description = ''): Result => ({
  position,
  url: `https://s${position}.example/`,
  title,
  description,
  trail: [],
  date: null,
  rating: null,
  price: null,
})
const tours = compileKeyword('lighthouse tours', 'en')

describe('numbers and years', () => {
  it.each([
    ['The 7 Best Tours in 2026', ['7'], 2026],
    ['1,200 knots, 3.5 hours', ['1,200', '3.5'], null],
    ['Die 12 besten Touren 2025 ab 24,95 €', ['12', '24,95'], 2025],
    ['1.200 Knoten', ['1.200'], null],
    ['Les 5 phares, 1 200 visiteurs', ['5', '1 200'], null],
    ['Las 10 mejores rutas de 2026', ['10'], 2026],
    ['De 3 fyrtårne i 1998 og 2026', ['3'], 1998],
    ['Room 20260', ['20260'], null],
    ['No number', [], null],
  ])('%s', (title, numbers, year) => {
    expect(numbersIn(title)).toEqual({ numbers, year })
  })
})

describe('a phrase', () => {
  it.each([
    ['Lighthouse Tours | Light', 'first'],
    ['The lighthouse tour', 'first'],
    ['Tours of the lighthouse', 'first'],
    ['Cheap lighthouse tours', 'later'],
    ['Boat trips', 'absent'],
  ])('in “%s” stands %s', (title, place) => {
    expect(phrasePlace(title, tours)).toBe(place)
  })
})

describe('what the others do', () => {
  it('is what a plain count says, on 200 generated line-ups', () => {
    const chance = new Chance(13)
    const words = [
      'Lighthouse',
      'tours',
      'cheap',
      'the',
      'Boats',
      'boat',
      '7',
      '2026',
      'how',
      'prices',
      '(new)',
      'near',
      'me?',
    ]
    const some = (most: number) => chance.some(most, () => chance.one(words)).join(' ')
    const { stem, isStopWord } = languageOf('en')
    const stemsIn = (text: string) =>
      new Set(
        text
          .toLowerCase()
          .split(/[^a-z]+/)
          .filter((w) => w !== '' && !isStopWord(w))
          .map(stem)
          .filter((s) => !tours.stems.includes(s)),
      )
    for (let i = 0; i < 200; i++) {
      const others = Array.from({ length: chance.below(10) }, (_, k) => result(k + 1, some(8), some(12)))
      const ours = { title: some(8), description: some(8), url: 'https://us.example/', position: 3 }
      const { results, words: shared, oursAlone, first } = compareLineUp(others, ours, tours, defaultSlots)
      for (const [k, figures] of results.entries()) {
        const { title, description } = others[k]!
        const plain = title.split(' ')
        expect(figures).toMatchObject({
          position: k + 1,
          numbers: plain.filter((w) => w === '7'),
          year: plain.includes('2026') ? 2026 : null,
          brackets: plain.includes('(new)'),
          titlePx: measure(title, 'title').px,
          descriptionState: measure(description, 'description').wide.state,
        })
      }
      const counts = new Map<string, number>()
      for (const { title, description } of others)
        for (const s of stemsIn(`${title} ${description}`)) counts.set(s, (counts.get(s) ?? 0) + 1)
      const own = stemsIn(`${ours.title} ${ours.description}`)
      expect(new Map(shared.map((w) => [stem(w.word), [w.results, w.ours]]))).toEqual(
        new Map([...counts].filter(([, n]) => n > 1).map(([s, n]) => [s, [n, own.has(s)]])),
      )
      expect(new Set(oursAlone.map(stem))).toEqual(new Set([...own].filter((s) => !counts.has(s))))
      const firsts = others.flatMap(({ title }) => {
        const word = title
          .split(' ')
          .map((w) => w.toLowerCase().replace(/[^a-z0-9]/g, ''))
          .find((w) => w !== '' && !isStopWord(w))
        return word === undefined ? [] : [stem(word)]
      })
      const most = Math.max(0, ...firsts.map((s) => firsts.filter((x) => x === s).length))
      expect(first?.results ?? 0).toBe(most > 1 ? most : 0)
    }
  })
  it('leaves ours out, and says where it is', () => {
    const all = [result(2, 'b'), result(1, 'a'), result(3, 'c')]
    const { others, ours } = withoutOurs(all, (url) => url === 'https://s2.example/')
    expect(others.map((r) => r.title)).toEqual(['a', 'c'])
    expect(ours?.position).toBe(2)
  })
})

describe('an answer of the service', () => {
  it('is taken as the contract says, and refused otherwise', () => {
    const answer = {
      phrase: 'x',
      asOf: '2026-11-20',
      results: [{ position: 1, url: 'https://a.example/', title: 't', more: 1 }],
    }
    expect(resultsAnswerSchema.validate(answer).value).toMatchObject({
      results: [{ description: '', rating: null }],
      questions: [],
    })
    for (const wrong of [
      {},
      { ...answer, results: [{ position: 0, url: 'https://a.example/', title: '' }] },
      { ...answer, results: [{ position: 1, url: 'javascript:alert(1)', title: '' }] },
    ])
      expect(resultsAnswerSchema.validate(wrong).error).toBeDefined()
  })
})

describe('where the eye lands', () => {
  const line = (text: string, role: EyeLine['role'] = 'title', bold: EyeLine['bold'] = []): EyeLine => ({
    text,
    role,
    bold,
  })
  const words = fc
    .array(fc.constantFrom('light', 'boat', 'sea', 'rope'), { minLength: 1, maxLength: 6 })
    .map((w) => w.join(' '))
  it('sums to one, whatever the results', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(words, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 10 }),
        (results) => {
          const shares = whereTheEyeLands(
            results.map((lines) => lines.map((text, i) => line(text, i === 0 ? 'title' : 'description'))),
            'en',
          ).flat(2)
          expect(shares.reduce((sum, w) => sum + w.share, 0)).toBeCloseTo(1, 9)
          expect(shares.every((w) => w.share > 0)).toBe(true)
        },
      ),
    )
  })
  it('is less from place to place, along the line, and from the first line to the next', () => {
    const same = Array.from({ length: 5 }, () => [
      line('alpha beta gamma'),
      line('delta epsilon', 'description'),
      line('zeta eta', 'description'),
    ])
    const all = whereTheEyeLands(same, 'en')
    for (const [place, result] of all.entries()) {
      for (const own of result)
        for (const [i, word] of own.entries()) if (i > 0) expect(word.share).toBeLessThan(own[i - 1]!.share)
      expect(result[1]![0]!.share).toBeLessThan(result[0]![0]!.share)
      expect(result[2]![0]!.share).toBeLessThan(result[1]![0]!.share)
      // The first and the last have one neighbour; between them all is alike.
      if (place > 1 && place < 4) expect(result[0]![0]!.share).toBeLessThan(all[place - 1]![0]![0]!.share)
    }
  })
  it('is more on bold words and numbers, and less on what all neighbours say', () => {
    const share = (own: EyeLine, neighbour = line('other words')) =>
      whereTheEyeLands([[neighbour], [own], [neighbour]], 'en')[1]![0]![0]!.share
    const plain = share(line('alpha words that follow'))
    expect(share(line('alpha words that follow', 'title', [{ start: 0, end: 5 }]))).toBeGreaterThan(plain)
    expect(share(line('70707 words that follow'))).toBeGreaterThan(plain)
    expect(share(line('alpha words that follow'), line('alpha things'))).toBeLessThan(plain)
  })
  it('has nothing to say of nothing', () => {
    expect(whereTheEyeLands([], 'en')).toEqual([])
    expect(whereTheEyeLands([[line('')]], 'en')).toEqual([[[]]])
  })
})
