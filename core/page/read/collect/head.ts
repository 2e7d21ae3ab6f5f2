/** What a head says: title, base, meta and link elements, wherever they stand. */
import { fold } from '../../../strings.ts'
import { toBytePlaces } from '../../source/places.ts'
import { attribute, type Element } from '../parse.ts'
import { placeOf, setBase, type Reading } from '../reading.ts'

/** A declaration of the encoding that ends behind so many bytes comes too late. Source: WHATWG HTML 4.2.5.4. */
const LAST_BYTE_FOR_CHARSET = 1024

export function collectHead(reading: Reading, node: Element, inHead: boolean): void {
  switch (node.tagName) {
    case 'title':
      reading.page.titles.push({ text: fold(textOf(node)), inHead, ...placeOf(node) })
      break
    case 'base': {
      const href = attribute(node, 'href')
      if (reading.page.base === null && href !== null) setBase(reading, href)
      break
    }
    case 'meta':
      collectMeta(reading, node, inHead)
      break
    case 'link':
      collectLink(reading, node, inHead)
  }
}

function collectMeta({ page, source }: Reading, node: Element, inHead: boolean): void {
  const name = attribute(node, 'name') ?? attribute(node, 'property') ?? attribute(node, 'http-equiv')
  const content = attribute(node, 'content') ?? ''
  if (name !== null)
    page.metas.push({ name: name.trim().toLowerCase(), content: fold(content), inHead, ...placeOf(node) })
  const declaresEncoding =
    attribute(node, 'charset') !== null ||
    (name?.toLowerCase() === 'content-type' && /charset/i.test(content))
  const heeded = source.encodingBy === 'meta' || source.encodingBy === 'bom' || source.encodingBy === 'header'
  if (!declaresEncoding || heeded || !node.place || page.charset.late !== null) return
  const [end] = toBytePlaces(source, [node.place.startEnd])
  if (end! > LAST_BYTE_FOR_CHARSET) page.charset.late = placeOf(node)
}

function collectLink({ page, resolve }: Reading, node: Element, inHead: boolean): void {
  const rel = attribute(node, 'rel')?.toLowerCase().split(/\s+/) ?? []
  const href = (attribute(node, 'href') ?? '').trim()
  const url = href === '' ? null : resolve(href)
  const link = { href, url, inHead, ...placeOf(node) }
  if (rel.includes('canonical')) page.canonicals.push(link)
  else if (rel.includes('alternate')) page.alternates.push(link)
  else page.rels.push({ rel: rel.join(' '), media: attribute(node, 'media') ?? '', ...link })
}

function textOf(node: Element): string {
  let text = ''
  for (const child of node.childNodes) if ('value' in child) text += child.value
  return text
}
