/** CodeMirror for a block's JSON, a chunk of its own. */
import { defaultKeymap } from '@codemirror/commands'
import { json } from '@codemirror/lang-json'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { EditorState, StateEffect, StateField } from '@codemirror/state'
import { Decoration, EditorView, keymap, lineNumbers, type DecorationSet } from '@codemirror/view'
import { tags } from '@lezer/highlight'

const colours = HighlightStyle.define([
  { tag: tags.propertyName, color: 'var(--quill)' },
  { tag: tags.string, color: 'var(--ink)', fontStyle: 'italic' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--ink)', fontWeight: '600' },
  { tag: tags.punctuation, color: 'var(--ink-3)' },
])

const setWrong = StateEffect.define<number | null>()
/** The place at which the text is no JSON. */
const wrong = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(now, transaction) {
    let next = now.map(transaction.changes)
    for (const effect of transaction.effects)
      if (effect.is(setWrong)) {
        const { length } = transaction.state.doc
        const at = effect.value === null ? null : Math.min(effect.value, Math.max(0, length - 1))
        next =
          at === null || length === 0
            ? Decoration.none
            : Decoration.set([Decoration.mark({ class: 'cm-marked' }).range(at, at + 1)])
      }
    return next
  },
  provide: (field) => EditorView.decorations.from(field),
})

export interface JsonEditor {
  /** Shows a text that came from elsewhere; what was typed here itself is no news. */
  show(text: string): void
  markWrong(at: number | null): void
  /** Puts the caret at a place and brings it into view. */
  goTo(at: number): void
  destroy(): void
}

export function jsonEditor(
  parent: HTMLElement,
  text: string,
  nonce: string,
  onType: (text: string) => void,
  onRest: () => void,
): JsonEditor {
  let isOwnChange = false
  // What was typed since the editor was entered: it comes back a moment later, older texts first.
  const typed = new Set<string>()
  // Line ends stay the block's own.
  const eol = text.includes('\r\n') ? '\r\n' : '\n'
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: text,
      extensions: [
        lineNumbers(),
        // Undo is the site's: one log for everything.
        keymap.of(defaultKeymap),
        json(),
        syntaxHighlighting(colours),
        EditorView.lineWrapping,
        EditorView.cspNonce.of(nonce),
        EditorView.contentAttributes.of({ 'aria-label': 'The block as JSON' }),
        wrong,
        EditorView.updateListener.of((update) => {
          if (update.docChanged && !isOwnChange) {
            const text = update.state.doc.toString()
            typed.add(text)
            onType(text.replaceAll('\n', eol))
          }
        }),
        EditorView.domEventHandlers({
          blur: () => {
            typed.clear()
            onRest()
          },
        }),
      ],
    }),
  })
  return {
    show(now) {
      const before = view.state.doc.toString()
      // CodeMirror counts each line end as one.
      const folded = now.replace(/\r\n?/g, '\n')
      if (folded === before || (view.hasFocus && typed.has(folded))) return
      isOwnChange = true
      let from = 0
      while (from < before.length && from < folded.length && before[from] === folded[from]) from++
      let tail = 0
      while (
        tail < before.length - from &&
        tail < folded.length - from &&
        before[before.length - 1 - tail] === folded[folded.length - 1 - tail]
      )
        tail++
      view.dispatch({
        changes: { from, to: before.length - tail, insert: folded.slice(from, folded.length - tail) },
      })
      isOwnChange = false
    },
    markWrong: (at) => view.dispatch({ effects: setWrong.of(at) }),
    goTo(at) {
      const place = Math.min(at, view.state.doc.length)
      view.dispatch({
        selection: { anchor: place },
        effects: EditorView.scrollIntoView(place, { y: 'center' }),
      })
    },
    destroy: () => view.destroy(),
  }
}
