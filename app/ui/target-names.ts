/** What an edit's target is called on a screen. */
import { parseKey, type Edit } from '../../core/page/edits/draft.ts'

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
  text: 'Text',
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

/** What an edit asks for, in a few words. */
export function wishOf(edit: Edit): string {
  if (edit.value !== undefined) return edit.value
  if (edit.remove) return 'to be taken out'
  if (edit.merge) return 'joined with what follows'
  if (edit.hgroup !== undefined) return 'the subtitle of the heading above'
  if (edit.tag) return 'made a paragraph'
  return edit.level === undefined ? 'changed' : `level ${edit.level}`
}
