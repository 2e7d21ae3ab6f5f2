/** Phrases: word forms folded, questions, helper words, demand; sheets of them; what a site says itself. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readPhraseSheet, monthColumns, numberIn } from '../exchange/phrase-sheet.ts'
import { readSheet } from '../exchange/sheet.ts'
import { recogniseColumns } from '../exchange/columns.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { demandAnswerSchema, demandQuestionSchema, phrasesOfAnswer } from './demand.ts'
import { keywordMap, withoutPhrase, withPhrase, type PageKeywords } from './keyword-map.ts'
import { mentionsIn } from './mentions.ts'
import { foldPhrases, hasStem, helperWords, wordFormsOf, type Phrase } from './phrases.ts'
import { isQuestion } from '../words/questions.ts'
import { namingPhrases, recurringPhrases } from './site-phrases.ts'
import { compileKeyword } from '../words/match.ts'

const phrase = (text: string, monthly: number | null = null): Phrase => ({
  phrase: text,
  monthly,
  months: null,
  source: 'typed',
  date: '2026-11-26',
  market: null,
  place: null,
})
const source = (html: string) => {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return read.source
}

describe('phrases', () => {
  it('of the same word forms are one, the most in demand first', () => {
    const folded = foldPhrases(
      [
        phrase('courses in knots', 20),
        phrase('boat trips', 50),
        phrase('knot course', 90),
        phrase('Knot  Course', 10),
      ],
      'en',
    )
    expect(folded.map((f) => [f.phrase.phrase, f.forms])).toEqual([
      ['knot course', ['courses in knots']],
      ['boat trips', []],
    ])
  })
  it.each([
    ['how long is a tour', 'en', true],
    ['are dogs allowed', 'en', true],
    ['how to', 'en', false],
    ['tours?', 'en', true],
    ['lighthouse tours how long', 'en', false],
    ['was kostet eine Fahrt', 'de', true],
    ['hvad koster turen', 'da', true],
    ['combien coûte la visite', 'fr', true],
    ['cuánto cuesta la visita', 'es', true],
    ['灯台の時間は？', 'ja', true],
  ])('%s, %s: a question %s', (text, lang, is) => {
    expect(isQuestion(text, lang)).toBe(is)
  })
  it('have helper words: what recurs beside the topic, with its forms folded and without filler', () => {
    const all = [
      'lighthouse tours near me',
      'cheap lighthouse tour',
      'lighthouse tour near the sea',
      'cheapest lighthouse tours',
      'how long do lighthouse tours take',
      'how to book a lighthouse tour',
    ]
    const helpers = helperWords(
      all.map((p) => phrase(p, 10)),
      'lighthouse tours',
      'en',
    )
    expect(helpers.map((h) => [h.word, h.phrases, h.monthly])).toEqual([
      ['how', 2, 20],
      ['near', 2, 20],
    ])
    expect(hasStem('tours near the sea', 'near', 'en')).toBe(true)
  })
})

describe('the keyword map', () => {
  const page = (id: string, primary: string, ...secondary: string[]): PageKeywords => ({
    id,
    lang: 'en',
    primary,
    secondary,
  })
  it('names pages after one phrase, whatever its forms, and phrases that are part of others', () => {
    const { clashes, byForms } = keywordMap([
      page('a', 'knot course'),
      page('b', 'courses in knots'),
      page('c', 'knots', 'knot course'),
      page('d', 'boats'),
    ])
    expect(clashes.map((c) => [c.kind, c.phrase, c.pages.map((p) => `${p.id} ${p.role}`)])).toEqual([
      ['same', 'knot course', ['a primary', 'b primary', 'c secondary']],
      ['contained', 'knots', ['c primary', 'a primary', 'b primary']],
    ])
    expect(byForms.get(wordFormsOf('boat', 'en'))).toEqual([{ id: 'd', phrase: 'boats', role: 'primary' }])
  })
  it('finds the clashes that comparing every page with every other finds', () => {
    const words = fc.array(fc.constantFrom('knot', 'course', 'sea', 'boat'), { minLength: 1, maxLength: 3 })
    const pages = fc.array(
      fc.record({
        primary: words.map((w) => w.join(' ')),
        secondary: fc.array(
          words.map((w) => w.join(' ')),
          { maxLength: 2 },
        ),
      }),
      { maxLength: 6 },
    )
    const stems = (p: string) => new Set(compileKeyword(p, 'en').stems)
    const same = (a: Set<string>, b: Set<string>) => a.size === b.size && [...a].every((s) => b.has(s))
    fc.assert(
      fc.property(pages, (given) => {
        const all = given.map((p, i) => ({ id: `p${i}`, lang: 'en', ...p }))
        const { clashes } = keywordMap(all)
        for (const a of all)
          for (const b of all) {
            if (a.id >= b.id) continue
            const wanted = all
              .map((p) => p.primary)
              .some((primary) =>
                [a, b].every((p) => [p.primary, ...p.secondary].some((x) => same(stems(x), stems(primary)))),
              )
            const found = clashes.some(
              (c) => c.kind === 'same' && [a, b].every((p) => c.pages.some((x) => x.id === p.id)),
            )
            expect(found).toBe(wanted)
          }
      }),
    )
  })
  it('gives a phrase to a page once, and loses none', () => {
    const now = { primary: 'knot course', secondary: ['ropes'] }
    expect(withPhrase(now, 'boats', 'primary', 'en')).toEqual({
      primary: 'boats',
      secondary: ['knot course', 'ropes'],
    })
    expect(withPhrase(now, 'rope', 'primary', 'en')).toEqual({ primary: 'rope', secondary: ['knot course'] })
    expect(withPhrase(now, 'courses in knots', 'secondary', 'en')).toEqual({
      primary: '',
      secondary: ['ropes', 'courses in knots'],
    })
    expect(withoutPhrase(now, 'knots course', 'en')).toEqual({ primary: '', secondary: ['ropes'] })
  })
})

describe('demand', () => {
  it('is asked with a topic, and with a place where the market is local', () => {
    const asked = { topic: 'tours', market: 'national', place: '', language: 'en', limit: 200 }
    expect(demandQuestionSchema.validate(asked).error).toBeUndefined()
    expect(demandQuestionSchema.validate({ ...asked, topic: ' ' }).error!.message).toMatch(/one or two words/)
    expect(demandQuestionSchema.validate({ ...asked, market: 'local' }).error!.message).toMatch(/which place/)
  })
  it('is kept as it was answered; what is not as the contract says is refused', () => {
    const answer = {
      market: 'national',
      asOf: '2026-11',
      phrases: [{ phrase: 'tours', months: Array<number>(12).fill(6), more: 1 }],
    }
    const { value, error } = demandAnswerSchema.validate(answer)
    expect(error).toBeUndefined()
    expect(phrasesOfAnswer(value!, 'x')[0]).toMatchObject({
      phrase: 'tours',
      monthly: 6,
      source: 'x',
      date: '2026-11',
    })
    for (const wrong of [
      {},
      { ...answer, asOf: 'now' },
      { ...answer, phrases: [{ phrase: '' }] },
      { ...answer, phrases: [{ phrase: 'x', months: [1] }] },
      { ...answer, phrases: [{ phrase: 'x', monthly: -1 }] },
    ])
      expect(demandAnswerSchema.validate(wrong).error).toBeDefined()
  })
})

describe('a sheet of phrases', () => {
  const read = async (csv: string) => {
    const opened = await readSheet(new TextEncoder().encode(csv))
    if (!opened.ok) throw new Error(opened.why)
    return readPhraseSheet(opened.sheet, recogniseColumns(opened.sheet, 'phrases'), {
      source: 's',
      date: 'd',
    })
  }
  it('is read by its columns’ names, also two columns with semicolons and few rows', async () => {
    const { phrases, unread } = await read(
      'Search term;Search volume\r\nknot course;1,200\r\n;5\r\nboats;\r\n',
    )
    expect(phrases.map((p) => [p.phrase, p.monthly])).toEqual([
      ['knot course', 1200],
      ['boats', null],
    ])
    expect(unread).toEqual([{ row: 3, why: 'It has no phrase.' }])
  })
  it('has twelve months where it names them, in their order', async () => {
    const months = [
      '2026-11',
      ...Array.from(
        { length: 11 },
        (_, i) => `${i < 1 ? 2025 : 2026}-${String(i < 1 ? 12 : i).padStart(2, '0')}`,
      ),
    ]
    const { phrases } = await read(`phrase,${months.join(',')}\nknots,12,1,2,3,4,5,6,7,8,9,10,11\n`)
    expect(phrases[0]!.months).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])
    expect(phrases[0]!.monthly).toBe(7)
    expect(
      monthColumns([
        'phrase',
        'Jan',
        'Feb',
        'März',
        'Apr',
        'Mai',
        'Jun',
        'Jul',
        'Aug',
        'Sep',
        'Okt',
        'Nov',
        'Dez',
      ]),
    ).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])
    expect(monthColumns(['Jan', 'Feb'])).toBeNull()
  })
  it.each([
    ['5400', 5400],
    ['5,400', 5400],
    ['1.234.567', 1234567],
    ['5 400', 5400],
    ['12.5', 13],
    ['about 5', null],
    ['', null],
    ['1e9', null],
  ])('reads %j as %j', (cell, number) => {
    expect(numberIn(cell)).toBe(number)
  })
})

describe('a site’s own phrases', () => {
  it('are those of titles, headings and links, as somebody would search with them', () => {
    const facts = (html: string) =>
      readPage(source(html), { path: 'a.html', url: 'https://s.example/a.html' })
    const page = facts(
      '<html lang=en><title>The Knot Courses | Farrow</title><main><h1>Our knot course</h1><a href=b>Knot course</a><a href=c>here</a><h2>A much longer heading that nobody would ever type in</h2></main>',
    )
    expect(recurringPhrases([namingPhrases(page, 'en')], 10)).toEqual([{ phrase: 'knot course', places: 3 }])
  })
})

describe('mentions', () => {
  const mentions = (html: string) =>
    mentionsIn(source(`<html lang=en><body>${html}`), compileKeyword('knot course', 'en'))
  it('are found in sentences of the text, with the words as they stand there', () => {
    const [found] = mentions(
      '<main><h1>Knot course</h1><p>It is raining. Take a course in <b>knots</b> with us! Or not.</main>',
    )
    expect(found).toMatchObject({
      phrase: 'course in knots',
      nth: 0,
      sentence: 'Take a course in knots with us!',
    })
  })
  it.each([
    '<main><p>See <a href=b>the knot course</a>.</main>',
    '<nav>Knot course</nav><main><p>x</main>',
    '<main><p><button>knot course</button></main>',
    '<main><pre>knot course</pre></main>',
  ])('are not what is a link, no text, or cannot be linked: %s', (html) => {
    expect(mentions(html)).toEqual([])
  })
})
