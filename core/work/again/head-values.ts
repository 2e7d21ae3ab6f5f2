/** What a page's head says, as far as edits that need no place change it. */
import { attribute, type Element } from '../../page/read/parse.ts'
import { fold } from '../../strings.ts'
import { comparableJson, type Side } from './page-pair.ts'

export interface Head {
  /** Of a title, a meta by its name, the canonical or the language; null where there is none. */
  value(kind: string, name: string): string | null
  /** Whether there is a doctype, a declared encoding or a skip link. */
  has(kind: string): boolean
  hasData(json: string): boolean
  /** Whether markup stands in the source as it is, white space folded. */
  hasMarkup(markup: string): boolean
}

export function headOf({ source, elements, head }: Side): Head {
  const first = (tag: string, is: (element: Element) => boolean) =>
    head.find((e) => e.tagName === tag && is(e))
  const text = (element: Element) =>
    element.childNodes.map((n) => ('value' in n ? (n as { value: string }).value : '')).join('')
  const named = (name: string) =>
    first(
      'meta',
      (e) => (attribute(e, 'name') ?? attribute(e, 'property') ?? '').trim().toLowerCase() === name,
    )
  return {
    value(kind, name) {
      switch (kind) {
        case 'title': {
          const title = first('title', () => true)
          return title ? fold(text(title)) : null
        }
        case 'meta': {
          const meta = named(name)
          return meta ? (attribute(meta, 'content') ?? '') : null
        }
        case 'canonical': {
          const link = first('link', (e) =>
            (attribute(e, 'rel') ?? '').toLowerCase().split(/\s+/).includes('canonical'),
          )
          return link ? (attribute(link, 'href') ?? '') : null
        }
        case 'lang': {
          const html = elements.find(({ element }) => element.tagName === 'html')
          return html ? attribute(html.element, 'lang') : null
        }
        default:
          return null
      }
    },
    has(kind) {
      if (kind === 'doctype') return /^\s*<!doctype\s/i.test(source.text)
      if (kind === 'charset') return source.encodingBy !== 'valid-utf-8' && source.encodingBy !== 'fall-back'
      const body = elements.findIndex(({ element }) => element.tagName === 'body')
      return elements
        .slice(body + 1, body + 40)
        .some(({ element }) => element.tagName === 'a' && /^#./.test(attribute(element, 'href') ?? ''))
    },
    hasData: (json) =>
      elements.some(
        ({ element }) =>
          element.tagName === 'script' &&
          (attribute(element, 'type') ?? '').trim().toLowerCase() === 'application/ld+json' &&
          comparableJson(text(element)) === json,
      ),
    hasMarkup: (markup) => fold(source.text).includes(fold(markup)),
  }
}
