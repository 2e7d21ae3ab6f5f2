import fc from 'fast-check'
import { parse } from 'parse5'
import { describe, expect, it } from 'vitest'
import { defaultSlots } from '../measure/snippet.ts'
import { readAnswers } from './approval-answers.ts'
import { takeHash, wordingHash, writeApproval, type ApprovalPage } from './approval.ts'

const page = (title: string, path = 'a.html'): ApprovalPage => ({
  path,
  lang: 'en',
  before: { title: '', description: '', url: 'https://s.example/a.html' },
  after: { title, description: title, url: 'https://s.example/a.html' },
  takes: { title: [title], description: [] },
  slots: defaultSlots,
  lineUp: {
    phrase: title,
    market: 'local',
    place: title,
    asOf: '2026-11-20',
    source: title,
    position: 2,
    isToday: false,
    others: [
      { url: 'https://a.example/', trail: [title], title, description: title },
      { url: 'https://b.example/', trail: [], title: 'Others', description: '' },
    ],
  },
})
const elements = (html: string): string[] => {
  const names: string[] = []
  const stack: { nodeName: string; childNodes?: unknown[]; attrs?: { name: string }[] }[] = [
    parse(html) as never,
  ]
  for (let node = stack.pop(); node; node = stack.pop()) {
    names.push(node.nodeName)
    for (const { name } of node.attrs ?? []) if (/^on/.test(name)) names.push(name)
    stack.push(...((node.childNodes ?? []) as typeof stack))
  }
  return names.sort()
}

describe('the approval file', () => {
  it('lets nothing of a page become markup', () => {
    const plain = elements(writeApproval({ site: 'S', date: '2026-11-24', pages: [page('Word')], fonts: [] }))
    const hostile = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 30 }),
      fc.constantFrom(
        '</script><script>alert(1)</script>',
        '"><img src=x onerror=alert(1)>',
        "'-alert(1)-'",
        '<!--',
        ']]>',
        '</title>',
      ),
    )
    fc.assert(
      fc.property(hostile, (text) => {
        // One line, so that no further line is drawn.
        const title = `a${text.replace(/\s/g, '').slice(0, 12)}${text.includes('script') ? text : ''}`.slice(
          0,
          40,
        )
        const html = writeApproval({ site: title, date: title, pages: [page(title, title)], fonts: [] })
        expect(elements(html).filter((n) => n !== 'span')).toEqual(plain.filter((n) => n !== 'span'))
      }),
    )
  })
  it('names each wording by its hash, so that an answer to another is known', () => {
    const html = writeApproval({ site: 'S', date: '', pages: [page('Word')], fonts: [] })
    expect(html).toContain(`data-of="${wordingHash(page('Word').after)}"`)
    expect(wordingHash(page('Word').after)).not.toBe(wordingHash(page('Word!').after))
  })
  it('draws ours among the others at its place, before and after, and each take where ours stands', () => {
    const html = writeApproval({
      site: 'S',
      date: '',
      pages: [{ ...page('Word'), takes: { title: ['Wort'], description: [] } }],
      fonts: [],
    })
    const [, after, before] = html.split('<ol class="line-up">').map((part) => part.split('</ol>')[0]!)
    for (const list of [after!, before!])
      expect([...list.matchAll(/<li(?: class="(ours)")?>/g)].map((m) => m[1] ?? '')).toEqual(['', 'ours', ''])
    expect(after).toContain(`data-take="${takeHash('Wort')}" hidden`)
    expect(before).not.toContain('data-take')
    expect(html).toContain('Ours is set at 2, to see how it would look there.')
  })
  it('draws a text that is cut as it will be cut', () => {
    const html = writeApproval({ site: 'S', date: '', pages: [page('Wide words '.repeat(20))], fonts: [] })
    expect(html).toMatch(/<p class="title"><span>(?:Wide words ?)+(?:Wide)?<i> \.\.\.<\/i>/)
  })
})

describe('an answer file', () => {
  const good = {
    format: 'keen-quill-answers',
    version: 1,
    site: 'S',
    made: '2026-11-24',
    by: 'M',
    answers: [{ path: 'a', of: 'x', answer: 'yes', note: '' }],
  }
  it('is read as it was saved', () =>
    expect(readAnswers(JSON.stringify(good))).toMatchObject({
      ok: true,
      answers: { by: 'M', answers: [{ ...good.answers[0], takes: {} }] },
    }))
  it('with the takes that were chosen', () => {
    const chosen = { ...good, answers: [{ ...good.answers[0], takes: { title: takeHash('Wort') } }] }
    expect(readAnswers(JSON.stringify(chosen))).toMatchObject({
      ok: true,
      answers: { answers: chosen.answers },
    })
  })
  it.each([
    ['', /not valid JSON/],
    ['[]', /not an answer file/],
    [JSON.stringify({ ...good, version: 2 }), /version/],
    [JSON.stringify({ ...good, answers: [{ path: 'a', of: 'x', answer: 'maybe', note: '' }] }), /answer/],
  ])('else says why: %s', (text, why) =>
    expect(readAnswers(text)).toMatchObject({ ok: false, why: expect.stringMatching(why) }),
  )
})
