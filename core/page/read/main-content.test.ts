/** Which part of a page is its main content: by what is said, else by where the text stands. */
import { describe, expect, it } from 'vitest'
import { readPage } from './read-page.ts'
import { readSource } from '../source/source.ts'

function mainOf(html: string, main: string | null = null) {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return readPage(read.source, { path: 'a', url: 'https://s.example/a', main })
}
const text = (n: number) => 'The boat leaves at ten. '.repeat(n)
const links = Array.from({ length: 30 }, (_, i) => `<a href="${i}">Entry number ${i}</a>`).join(' ')

describe('main content', () => {
  it.each([
    ['main', '<main hidden>no</main><nav>n</nav><main><p>yes</p></main>'],
    ['role', '<div role=main><p>yes</p></div><p>no</p>'],
    ['article', '<p>no</p><article><p>yes</p></article>'],
    ['body', '<header>no</header><nav>no</nav><p>yes</p><aside>no</aside><footer>no</footer>'],
  ] as const)('by %s', (by, html) => {
    const page = mainOf(html)
    expect(page.main).toMatchObject({ by, text: 'yes', words: 1 })
  })
  it('by where the running text stands, menus of links left out', () => {
    const page = mainOf(
      `<div class=menu>${links}</div><div class=wrap><div class=side>${links}</div><div class=copy><h1>T</h1><p>${text(40)}</p></div></div><div>${links}</div>`,
    )
    expect(page.main.by).toBe('density')
    expect(page.main.text).toBe(`T\n${text(40).trim()}`)
    expect(page.headings[0]!.inMain).toBe(true)
  })
  it('is the body where no part holds nearly all of the text, or there is too little to tell', () => {
    expect(mainOf(`<div>${text(20)}</div><div>${text(20)}</div><p>${links}</p>`).main.by).toBe('body')
    expect(mainOf(`<div>${links}</div><div>Little.</div>`).main.by).toBe('body')
  })
  it('where the house says, by tag, id or class; else as if it had not', () => {
    const html = '<main>m</main><div id=copy class="a b">yes</div>'
    for (const choice of ['#copy', '.b', 'div'])
      expect(mainOf(html, choice).main).toMatchObject({ by: 'chosen', text: 'yes' })
    expect(mainOf(html, '#gone').main).toMatchObject({ by: 'main', text: 'm' })
  })
  it('says how much stands before the first heading, and which headings are its own', () => {
    const page = mainOf(
      '<nav><h2>n</h2></nav><main><p>one two three</p><h1>T</h1><p>four</p></main><h2>after</h2>',
    )
    expect(page.main.lead).toBe(3)
    expect(Array.from(page.headings, (h) => h.inMain)).toEqual([false, true, false])
    expect(mainOf('<main><p>one two</p></main>').main.lead).toBe(2)
  })
})
