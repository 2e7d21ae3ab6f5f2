import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalOf, descriptionOf, isIndexable, titleOf } from './facts.ts'
import { soup } from '../../../tests/fixtures/soup.ts'
import { readPage } from './read-page.ts'
import { readSource, type Source } from '../source/source.ts'

const where = { path: 'a/page.html', url: 'https://site.example/a/page.html' }
function source(html: string): Source {
  const result = readSource(new TextEncoder().encode(html))
  if (!result.ok) throw new Error(result.why)
  return result.source
}
const read = (html: string) => readPage(source(html), where)

describe('readPage', () => {
  it('never throws, on any text (invariant 3)', () => {
    fc.assert(
      fc.property(
        soup.filter((t) => t !== ''),
        (html) => void read(html),
      ),
      { numRuns: 1500 },
    )
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, unit: 'binary' }).filter((s) => !s.includes('\0')),
        (html) => void read(html),
      ),
    )
  })
  it('takes 10,000 nested elements without the call stack', () => {
    const page = read('<div>'.repeat(10_000) + '<h1>Deep</h1>' + '</div>'.repeat(10_000))
    expect(page.headings[0]!.text).toBe('Deep')
  })
  it('takes what is SVG’s, a template’s or a script’s for no part of the page', () => {
    const page = read(
      '<svg><title>Logo</title></svg><template><h1>T</h1></template><script>"<h1>S</h1>"</script><h1>Own</h1>',
    )
    expect(titleOf(page)).toBeNull()
    expect(Array.from(page.headings, (h) => h.text)).toEqual(['Own'])
  })
  it('resolves links against the base and the address', () => {
    expect(
      read('<base href="/b/"><a href="c.html?x#y">l</a><link rel=canonical href="../z">').links[0]!.url,
    ).toBe('https://site.example/b/c.html?x#y')
    expect(read('<a href="http://[bad">l</a>').links[0]!.url).toBeNull()
    expect(canonicalOf(read('<base href="https://other.example/"><link rel=canonical href="z">'))!.url).toBe(
      'https://other.example/z',
    )
  })
  it('knows where headings live: a header within an article is not the page’s (HTML-AAM 1.0)', () => {
    const page = read(
      '<header><h2>a</h2></header><main><article><header><h2>b</h2></header></article><aside><h3>c</h3></aside></main><div role=navigation><h2>d</h2></div><footer><h4>e</h4></footer><h2>f</h2>',
    )
    expect(Array.from(page.headings, (h) => h.landmark)).toEqual([
      'header',
      'main',
      'aside',
      'nav',
      'footer',
      null,
    ])
  })
  it('gives a heading’s text as shown: folded, breaks as spaces, images by their alternative text', () => {
    const page = read('<h1> The\n <b>fog</b><br>signal <img src=x alt="of 1861"></h1>')
    expect(page.headings[0]!.text).toBe('The fog signal of 1861')
  })
  it('leaves out of a heading’s text a link at its end that is only a sign for itself, or hidden', () => {
    const texts = (html: string) => Array.from(read(html).headings, (h) => h.text)
    expect(
      texts(
        [
          '<h2 id=a>Lamp rooms<a class=headerlink href="#a">¶</a></h2>',
          '<h2>Lamp rooms <a href="#b" title="Permanent link"> # </a>\n</h2>',
          '<h2>Lamp rooms<a href="#c">&sect;</a></h2>',
          '<h2>Lamp rooms<a href="#d">🔗\ufe0f</a></h2>',
          '<h2>Lamp rooms<a href="#e">&#xf0c1;</a></h2>',
          '<h2>Lamp rooms<a href="#f" aria-hidden=true>anchor</a></h2>',
          '<h2>Lamp rooms<a href="#g">&#8203;</a></h2>',
        ].join(''),
      ),
    ).toEqual(Array(7).fill('Lamp rooms'))
    expect(texts('<h2>Track <a href="/1">#1</a></h2><h2><a href=/c>C</a> # and F #</h2>')).toEqual([
      'Track #1',
      'C # and F #',
    ])
  })
  it('finds main content by main, by role, by the only article, else the body without what surrounds it', () => {
    const words = (html: string) => [read(html).main.by, read(html).main.text] as const
    expect(words('<nav>n</nav><main hidden>x</main><main>a b</main>')).toEqual(['main', 'a b'])
    expect(words('<nav>n</nav><div role=main>a</div>')).toEqual(['role', 'a'])
    expect(words('<nav>n</nav><article>a</article>')).toEqual(['article', 'a'])
    expect(
      words(
        '<nav>n</nav><p>a</p><aside>s</aside><p>b<span style="display: none">h</span></p><footer>f</footer>',
      ),
    ).toEqual(['body', 'a\nb'])
  })
  it('counts a page’s words the same, whatever page was read before it', () => {
    fc.assert(
      fc.property(soup, fc.constantFrom('h3', 'section', 'main', 'aside'), (html, tag) => {
        const [first, second] = [`<h2>One</h2>${html}`, `<${tag}>One</${tag}>${html}`]
        const counts = ({ main, headings, text }: ReturnType<typeof read>) => [
          main,
          headings.map((h) => h.words),
          text,
        ]
        const before = counts(read(second))
        read('<p>another page</p>')
        expect(counts(read(second))).toEqual(before)
        read(first)
        expect(counts(read(second))).toEqual(before)
      }),
      { numRuns: 300 },
    )
  })
  it('counts words across entities and inline markup, and not across blocks', () => {
    expect(
      read('<main><p>caf&eacute; l<b>ight</b>house</p><p>lamp</p><script>no words</script></main>').main
        .words,
    ).toBe(3)
  })
  it('reads metas whatever their case, and directives that take a page out of results', () => {
    const page = read('<META NAME="Description" CONTENT=" A  page ">')
    expect(descriptionOf(page)!.content).toBe('A page')
    expect(isIndexable(read('<meta name=robots content="NOINDEX, follow">'))).toBe(false)
    expect(isIndexable(read('<link rel=canonical href="/elsewhere">'))).toBe(false)
    expect(isIndexable(read('<link rel=canonical href="/a/page.html">'))).toBe(true)
  })
})
