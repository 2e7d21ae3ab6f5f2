/** CodeMirror for the Source sheet, a chunk of its own. */
import { html } from '@codemirror/lang-html'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { EditorState, RangeSetBuilder } from '@codemirror/state'
import { Decoration, EditorView, lineNumbers } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import type { MarkView } from '../../workers/page-view.ts'

const colours = HighlightStyle.define([
  { tag: [tags.tagName, tags.angleBracket], color: 'var(--quill)' },
  { tag: tags.attributeName, color: 'var(--ink-2)' },
  { tag: [tags.attributeValue, tags.string], color: 'var(--ink)', fontStyle: 'italic' },
  { tag: [tags.comment, tags.documentMeta], color: 'var(--ink-3)' },
])

/** A page larger than this is shown without colours, which would take longer than they help. */
const COLOURED = 2_000_000

/** Places count UTF-16 units of the text; CodeMirror counts each line end as one, so CRLF is folded first. */
function foldLineEnds(text: string): { doc: string; at(place: number): number } {
  if (!text.includes('\r')) return { doc: text, at: (p) => p }
  const ends = [...text.matchAll(/\r\n/g)].map((m) => m.index)
  return {
    doc: text.replace(/\r\n?/g, '\n'),
    at(place) {
      let low = 0
      let high = ends.length
      while (low < high) {
        const middle = (low + high) >> 1
        if (ends[middle]! < place) low = middle + 1
        else high = middle
      }
      return place - low
    },
  }
}

export interface SourceView {
  view: EditorView
  /** The page's text as it was given. */
  text: string
  /** A place of that text in the editor's own. */
  placeOf(start: number): number
  /** What else than marks is to be placed level with its line. */
  remark(remarks: readonly { id: string; start: number }[]): void
}

export function showSource(
  parent: HTMLElement,
  text: string,
  marks: MarkView[],
  nonce: string,
  onPlaced: (tops: Map<string, number>) => void,
): SourceView {
  const { doc, at } = foldLineEnds(text)
  const places = marks
    .flatMap((m) => (m.start === null ? [] : [{ mark: m, from: at(m.start), to: at(m.end ?? m.start + 1) }]))
    .filter((p) => p.to > p.from && p.to <= doc.length)
    .sort((a, b) => a.from - b.from || a.to - b.to)
  const builder = new RangeSetBuilder<Decoration>()
  for (const { mark, from, to } of places)
    builder.add(
      from,
      to,
      Decoration.mark({
        class: mark.severity === 'nit' ? 'cm-marked cm-marked-nit' : 'cm-marked',
        attributes: { title: mark.name },
      }),
    )
  const decorations = builder.finish()
  const placeOf = (start: number) => Math.max(0, Math.min(at(start), doc.length))
  let remarks: readonly { id: string; start: number }[] = []
  const place = (view: EditorView) =>
    onPlaced(
      new Map([
        ...places.map(({ mark, from }) => [mark.id, view.lineBlockAt(from).top + 4] as const),
        ...remarks.map(({ id, start }) => [id, view.lineBlockAt(placeOf(start)).top + 4] as const),
      ]),
    )
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc,
      extensions: [
        lineNumbers(),
        EditorState.readOnly.of(true),
        EditorView.contentAttributes.of({ 'aria-label': 'Source of the page, read-only', tabindex: '0' }),
        EditorView.lineWrapping,
        EditorView.cspNonce.of(nonce),
        EditorView.decorations.of(decorations),
        ...(doc.length < COLOURED ? [html(), syntaxHighlighting(colours)] : []),
        EditorView.updateListener.of((update) => {
          if (update.geometryChanged) place(update.view)
        }),
      ],
    }),
  })
  requestAnimationFrame(() => place(view))
  return {
    view,
    text,
    placeOf,
    remark(given) {
      remarks = given
      place(view)
    },
  }
}
