import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compileKeyword, findKeyword } from '../words/match.ts'
import { defaultSlots, measure } from '../measure/snippet.ts'
import type { PageFacts } from '../page/read/facts.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { insteadOfTitle, paragraphsOf, passageFor, sentencesOf } from './shown-instead.ts'
import { draftDescriptions, draftTitles } from './takes.ts'

function pageOf(html: string): PageFacts {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return readPage(read.source, { path: 'visit/steps.html', url: 'https://s.example/visit/steps.html' })
}
const keyword = (text: string) => compileKeyword(text, 'en')
const context = (html: string, more: { keyword?: string; suffix?: string; own?: string } = {}) => ({
  page: pageOf(html),
  keyword: more.keyword ? keyword(more.keyword) : null,
  slots: defaultSlots,
  suffix: more.suffix ?? '',
  own: more.own ?? '',
  lang: 'en',
})
const texts = (takes: { text: string }[]) => takes.map((t) => t.text)

describe('sentences', () => {
  it('end at a closing mark before a space, and not at an abbreviation', () =>
    expect(
      sentencesOf('Ask Mr. Skarre. “Is it safe?” he said! See No. 5. And so').map((s) => s.text),
    ).toEqual(['Ask Mr. Skarre.', '“Is it safe?”', 'he said!', 'See No. 5.', 'And so']))
  it('hold all of a paragraph’s words, in order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('One', 'two.', 'Mr.', 'three!', '“Four?”', 'St.', 'five…')),
        (words) => {
          const text = words.join(' ')
          expect(
            sentencesOf(text)
              .map((s) => s.text)
              .join(' '),
          ).toBe(text)
        },
      ),
    )
  })
})

describe('what is shown instead', () => {
  it('of a title: the first H1 with text, else the file’s name', () => {
    expect(insteadOfTitle(pageOf('<h1> </h1><h1>The <em>steps</em></h1>'))).toEqual({
      text: 'The steps',
      from: 'the first H1',
    })
    expect(insteadOfTitle(pageOf('<h2>No H1</h2>'))).toEqual({ text: 'steps.html', from: 'the file’s name' })
  })
  it('of a description: the sentence around the keyword, else the first paragraph, else nothing', () => {
    const html =
      '<main><p>Short.</p><p>The landing is on the north side of the rock. In a swell we use the steps, which are steep.</p><p>Another paragraph about the steps and the rope that hangs there.</p></main>'
    expect(passageFor(pageOf(html), keyword('step'))).toMatchObject({
      text: 'In a swell we use the steps, which are steep.',
      from: 'around the keyword',
      paragraph: 1,
    })
    expect(passageFor(pageOf(html), keyword('parrot'))).toMatchObject({
      from: 'the first paragraph',
      paragraph: 1,
    })
    expect(passageFor(pageOf(html), null)!.text).toMatch(/^The landing is on/)
    expect(passageFor(pageOf('<p>Too short.</p>'), null)).toBeNull()
  })
  it('is the first paragraph that has the keyword by itself, as a plain look at each says', () => {
    const word = fc.constantFrom('step', 'Steps', 'harbour', 'tide', 'rock', 'the', 's’', "o'clock", 'ebb')
    const paragraph = fc.array(word, { minLength: 5, maxLength: 14 }).map((words) => `${words.join(' ')}.`)
    fc.assert(
      fc.property(
        fc.array(paragraph, { maxLength: 6 }),
        fc.constantFrom('step', 'harbour steps', 'tide rock ebb'),
        (texts, phrase) => {
          const page = pageOf(`<main>${texts.map((text) => `<p>${text}</p>`).join('')}</main>`)
          const plain = paragraphsOf(page).findIndex((text) => findKeyword(text, keyword(phrase)).length > 0)
          const passage = passageFor(page, keyword(phrase))
          expect(passage?.from === 'around the keyword' ? passage.paragraph - 1 : -1).toBe(plain)
        },
      ),
    )
  })
})

describe('drafted titles', () => {
  it('are made of the H1, the keyword and the suffix, and say so', () => {
    const takes = draftTitles(
      context('<title>Steps</title><h1>Getting up and down</h1>', {
        keyword: 'landing steps',
        suffix: ' | Light',
        own: 'Steps',
      }),
    )
    expect(takes).toContainEqual({
      text: 'Landing steps: Getting up and down | Light',
      from: 'the keyword, the H1 and the site’s name',
    })
    expect(takes).toContainEqual({ text: 'Getting up and down | Light', from: 'the H1 and the site’s name' })
    expect(takes).toContainEqual({ text: 'Steps | Light', from: 'the title and the site’s name' })
  })
  it('leave the keyword out where the H1 has it in any form', () =>
    expect(
      texts(
        draftTitles(context('<title>x</title><h1>The landing’s steps</h1>', { keyword: 'landing step' })),
      ),
    ).toEqual(['The landing’s steps']))
  it('of a title that is cut, drop the suffix, filler and what stands behind the first break', () => {
    const own = 'Welcome to the landing on the north side of the rock: steps, ropes, tides'
    const takes = draftTitles(
      context(`<title>${own} | Farrowskerry Light</title>`, {
        own,
        suffix: ' | Farrowskerry Light',
        keyword: 'landing',
      }),
    )
    expect(takes.length).toBeGreaterThanOrEqual(2)
    for (const { text } of takes) expect(measure(text, 'title').wide.state).not.toBe('cut')
    expect(texts(takes)).toContain('Welcome to the landing on the north side of the rock')
  })
  it('never offer what stands there, nor one wording twice', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Tides', 'The tides of the rock', 'Tides | Light'),
        fc.constantFrom('', ' | Light'),
        fc.constantFrom('Tides', 'Charts'),
        (title, suffix, h1) => {
          const takes = texts(
            draftTitles(
              context(`<title>${title}</title><h1>${h1}</h1>`, {
                suffix,
                own: title.replace(' | Light', ''),
                keyword: 'tides',
              }),
            ),
          )
          expect(takes).not.toContain(title)
          expect(new Set(takes).size).toBe(takes.length)
        },
      ),
    )
  })
})

describe('drafted descriptions', () => {
  const html =
    '<main><p>It is a fine place. The rock has four acres of turf, three of gulls and one lighthouse that still works every night.</p><p>The landing steps are steep and wet. A rope hangs along the whole flight, and the lowest four are under water at high tide.</p></main>'
  it('are the page’s own sentences, with the keyword before others, and fit uncut', () => {
    const takes = draftDescriptions(context(html, { keyword: 'landing step' }))
    expect(takes[0]!.text).toMatch(/^The landing steps are steep and wet\. A rope hangs/)
    expect(takes[0]!.from).toBe('paragraph 2, with the keyword')
    for (const { text } of takes) {
      expect(measure(text, 'description').wide.state).toBe('fits')
      expect(text).toMatch(/[.!?]$/)
    }
  })
  it('are none where no sentence fits', () => {
    expect(draftDescriptions(context(`<p>${'on and on '.repeat(60)}</p>`))).toEqual([])
    expect(draftDescriptions(context('<p>Menu</p>'))).toEqual([])
  })
})
