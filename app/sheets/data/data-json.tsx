import { useEffect, useRef } from 'react'
import { lineAndColumn, lineStarts } from '../../../core/page/source/places.ts'
import { layOut } from '../../../core/json/edit-json.ts'
import { parseJson } from '../../../core/json/json.ts'
import { useNonce } from '../../nonce.ts'
import type { JsonEditor } from './json-editor.ts'

/** A block as its JSON, both ways: what is typed here is in the fields, what is filled in there is here. */
export function DataJson({
  text,
  onType,
  onRest,
}: {
  text: string
  onType(text: string): void
  onRest(): void
}) {
  const host = useRef<HTMLDivElement>(null)
  const editor = useRef<JsonEditor | null>(null)
  const nonce = useNonce()
  const callbacks = useRef({ onType, onRest })
  const latest = useRef(text)
  const parsed = parseJson(text)
  const at = parsed.ok ? null : parsed.at

  useEffect(() => {
    callbacks.current = { onType, onRest }
    latest.current = text
  })
  useEffect(() => {
    let gone = false
    void import('./json-editor.ts').then(({ jsonEditor }) => {
      if (gone || !host.current) return
      editor.current = jsonEditor(
        host.current,
        latest.current,
        nonce,
        (t) => callbacks.current.onType(t),
        () => callbacks.current.onRest(),
      )
    })
    return () => {
      gone = true
      editor.current?.destroy()
      editor.current = null
    }
  }, [nonce])
  useEffect(() => {
    editor.current?.show(text)
    editor.current?.markWrong(at)
  }, [text, at])

  const place = parsed.ok ? null : lineAndColumn(lineStarts(text), parsed.at)
  return (
    <div data-testid="json">
      <div ref={host} className="sheet overflow-x-auto" />
      {parsed.ok && layOut(text) !== text && (
        <button
          type="button"
          className="quiet float-right mt-1 text-[13px]"
          title="Puts each value on its own line"
          onClick={() => {
            onType(layOut(text))
            onRest()
          }}
        >
          Format
        </button>
      )}
      <p className={`mt-1 text-[13px] ${place ? 'text-carmine' : 'text-ink-3'}`} role="status">
        {parsed.ok
          ? 'Valid JSON. Changes made here appear in the fields, and the other way round.'
          : `${text.trim() === '' ? 'The block is empty' : parsed.message} (line ${place!.line}, column ${place!.column}). The fields wait until it is mended; what you typed is kept.`}
      </p>
    </div>
  )
}
