/** CodeMirror's merge view for a page's source before and after, a chunk of its own. */
import { html } from '@codemirror/lang-html'
import { MergeView } from '@codemirror/merge'
import { EditorState } from '@codemirror/state'
import { EditorView, lineNumbers } from '@codemirror/view'

/** Beyond this the views are plain: colours would take longer than they help. */
const COLOURED = 1_000_000

/** As everywhere in the house: what goes is struck through, what comes is set off. */
const colours = EditorView.theme({
  '&.cm-merge-a .cm-changedLine, &.cm-merge-b .cm-changedLine': { backgroundColor: 'transparent' },
  '&.cm-merge-a .cm-changedText': {
    background: 'none',
    textDecoration: 'line-through 2px var(--carmine)',
  },
  '&.cm-merge-b .cm-changedText': { background: 'var(--quill-soft)' },
  '&.cm-merge-a .cm-changedLineGutter, &.cm-merge-b .cm-changedLineGutter': {
    background: 'var(--ink)',
  },
  '.cm-collapsedLines': {
    background: 'var(--paper-2)',
    color: 'var(--ink-2)',
    padding: '2px 12px',
  },
})

/** Draws both in `parent`, unchanged stretches folded; returns what takes it away again. */
export function showDifference(
  parent: HTMLElement,
  { before, after }: { before: string; after: string },
  nonce: string,
): () => void {
  const extensions = [
    lineNumbers(),
    EditorState.readOnly.of(true),
    EditorView.editable.of(false),
    EditorView.contentAttributes.of({ tabindex: '0', 'aria-readonly': 'true' }),
    EditorView.lineWrapping,
    EditorView.cspNonce.of(nonce),
    colours,
    ...(before.length + after.length < COLOURED ? [html()] : []),
  ]
  const label = (name: string) => EditorView.contentAttributes.of({ 'aria-label': name })
  const view = new MergeView({
    a: { doc: before, extensions: [...extensions, label('Source before')] },
    b: { doc: after, extensions: [...extensions, label('Source after')] },
    parent,
    collapseUnchanged: { margin: 3, minSize: 6 },
    diffConfig: { scanLimit: 5000, timeout: 2000 },
  })
  return () => view.destroy()
}
