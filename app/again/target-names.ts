/** What an edit's target is called on a screen. */
import { parseKey } from '../../core/page/edits/draft.ts'

const names: Record<string, string> = {
  title: 'Title',
  slug: 'Slug',
  canonical: 'Canonical',
  lang: 'Language',
  charset: 'Encoding',
  doctype: 'Doctype',
  skip: 'Skip link',
  heading: 'Heading',
  block: 'Line made a heading',
  alt: 'Alternative text',
  id: 'Id',
  link: 'Link of the head',
  comment: 'Comment',
  jsonld: 'Structured data',
  data: 'Structured data',
  new: 'Added to the head',
}

export function targetName(target: string): string {
  const { kind, name } = parseKey(target)
  if (kind === 'meta') return name === 'description' ? 'Description' : `Meta ${name}`
  return names[kind] ?? target
}
