/** Edits of a page's shell: the doctype, a link past the menu, comments, markup added to the head. */
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import type { Edit } from './draft.ts'
import type { Locations } from '../splice/locate.ts'
import { attribute } from '../read/parse.ts'
import { declaresEncoding, type Source } from '../source/source.ts'
import { contentText, insertInHead, setAttribute, type Splice, type Splices } from '../splice/splice.ts'

/** What may stand in a head (WHATWG HTML 4.2 and 13.2.6.4.4); anything else would close it. */
const OF_HEAD = new Set(['base', 'link', 'meta', 'noscript', 'script', 'style', 'template', 'title'])

export function doctypeSplices({ doctypeEnd, eol }: Locations): Splices {
  return doctypeEnd > 0 ? [] : [{ start: 0, end: 0, text: `<!doctype html>${eol}` }]
}

/** Takes a comment out, with its line where it has one to itself. */
export function commentSplices({ view, comments }: Locations, at: number, edit: Edit): Splices {
  const comment = comments.get(at)
  if (!comment) return { why: 'The comment is no longer in the source.' }
  if (!edit.remove) return []
  if (!/--!?>$/.test(view.slice(Math.max(comment.start, comment.end - 4), comment.end)))
    return { why: 'The comment is never closed in the source. Close it there first: -->.' }
  let { start, end } = comment
  while (start > 0 && (view[start - 1] === ' ' || view[start - 1] === '\t')) start--
  const after = /^[ \t]*(\r\n|\r|\n)/.exec(view.slice(end, end + 200))
  if (after && (start === 0 || view[start - 1] === '\n' || view[start - 1] === '\r')) end += after[0].length
  else start = comment.start
  return [{ start, end, text: '' }]
}

/** Why markup cannot be added to a head, with what to do; null where it can. */
export function whyNotInHead(markup: string): string | null {
  const fragment = parseFragment(`<template>${markup}</template>`).childNodes[0] as
    DefaultTreeAdapterTypes.Template | undefined
  for (const node of fragment?.content.childNodes ?? []) {
    if ('tagName' in node && !OF_HEAD.has(node.tagName))
      return `<${node.tagName}> is not allowed in the head and would close it. Links, metas, scripts and styles are allowed.`
    if (node.nodeName === '#text' && 'value' in node && node.value.trim() !== '')
      return `“${node.value.trim().slice(0, 40)}” is text, which is not allowed in the head and would close it.`
  }
  const opened = (markup.match(/<(script|style|title|template|noscript)\b/gi) ?? []).length
  const closed = (markup.match(/<\/(script|style|title|template|noscript)\s*>/gi) ?? []).length
  if (opened !== closed) return 'Something in it is opened and not closed; what comes after it would be lost.'
  if (markup.lastIndexOf('<!--') > markup.lastIndexOf('-->')) return 'A comment in it is never closed.'
  return null
}

export function newSplices(source: Source, places: Locations, edit: Edit): Splices {
  const markup = (edit.value ?? '').replaceAll('\0', '').trim()
  if (markup === '' || edit.remove) return []
  const why = whyNotInHead(markup)
  if (why) return { why }
  // In a script or a style sheet no character can be written as a reference.
  if (!declaresEncoding(source) && /[^\0-\x7f]/.test(markup) && /<(?:script|style)\b/i.test(markup))
    return {
      why: 'The page declares no encoding, and what is added contains letters beyond ASCII. Declare the encoding first.',
    }
  return insertInHead(places, markup)
}

/** A skip link, first thing in the body, to the main content, which is given an id where it has none. */
export function skipSplices(places: Locations, edit: Edit): Splices {
  const { body, main, eol } = places
  if (!main) return { why: 'There is no main element for it to lead to. Mark the main content up first.' }
  if (!body) return { why: 'The page has no <body> tag in its source, so it is not certain where it begins.' }
  const id = attribute(main, 'id')
  const splices: Splice[] = []
  const target = id && !/\s/.test(id) ? id : freeId(places)
  if (target !== id) splices.push(setAttribute(places, main, 'id', target))
  splices.push({
    start: body.place.startEnd,
    end: body.place.startEnd,
    text: `${eol}<a href="#${encodeURIComponent(target)}">${contentText(edit.value ?? 'Skip to main content')}</a>`,
  })
  return splices
}

function freeId({ byStart }: Locations): string {
  const taken = new Set([...byStart.values()].map((e) => attribute(e, 'id')))
  for (const name of ['main', 'content', 'main-content']) if (!taken.has(name)) return name
  let n = 2
  while (taken.has(`main-${n}`)) n++
  return `main-${n}`
}
