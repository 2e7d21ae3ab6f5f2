/** One block of the page's text, edited where it stands. */
import { useState } from 'react'
import type { GalleyBlock, Hit, PhraseKind } from '../../workers/galley.ts'
import { plural } from '../../ui/plural.ts'
import { selectedIn, type Selected } from './link-words.tsx'

/** How blocks of each tag are set: headings in their order, the rest as running text. */
function styleOf(tag: string): string {
  if (tag === 'h1') return 'text-[26px] leading-8 font-semibold'
  if (tag === 'h2') return 'text-[21px] leading-7 font-semibold'
  if (/^h[3-6]$/.test(tag)) return 'text-[18px] leading-7 font-semibold'
  return 'text-[17px] leading-7'
}

/** Pictures and controls stand for one character. */
const drawn = (text: string) => text.replaceAll('\ufffc', '▣')

export function Block({
  block,
  value,
  editing,
  lang,
  sectionWords,
  onEdit,
  onType,
  onLeave,
  onRemove,
  onMove,
  forSelected,
  actions,
}: {
  block: GalleyBlock
  /** What is typed; what the block shows where nothing is. */
  value: string
  editing: boolean
  lang: string | null
  /** Of a heading: the words of its section. */
  sectionWords: number | null
  onEdit(): void
  onType(value: string): void
  onLeave(): void
  onRemove(): void
  onMove(by: 1 | -1): void
  /** What is offered for words that are selected. */
  forSelected(selected: Selected): React.ReactNode
  /** What can be done with the block while it is edited. */
  actions: React.ReactNode
}) {
  const [why, setWhy] = useState<string | null>(null)
  const [selected, setSelected] = useState<Selected | null>(null)
  const isReadOnly = block.readOnly !== null || block.key === null
  const begin = () => (isReadOnly ? setWhy(block.readOnly ?? 'It cannot be edited here.') : onEdit())
  const name = `${block.tag}: ${value.slice(0, 60)}`
  return (
    <div
      className={`grid grid-cols-[52px_minmax(0,1fr)] gap-3 py-1 ${/^h[1-6]$/.test(block.tag) ? 'mt-3' : ''} ${editing ? '' : '[contain-intrinsic-size:auto_60px] [content-visibility:auto]'}`}
      data-block={block.key ?? undefined}
    >
      <span
        className="pt-1 text-right font-mono text-[11px] leading-5 text-ink-3"
        title={block.className || undefined}
      >
        {block.tag}
        {block.isEdited && (
          <span className="block font-sans text-quill">{block.putIn ? 'new' : 'edited'}</span>
        )}
      </span>
      <div className={`font-serif ${styleOf(block.tag)}`} lang={lang ?? undefined}>
        {editing ? (
          <textarea
            autoFocus
            aria-label={name}
            dir="auto"
            className="block field-sizing-content w-full resize-none border-l-2 border-quill bg-paper-2 pl-3 outline-offset-2"
            value={value}
            rows={1}
            spellCheck
            onChange={(e) => onType(e.target.value)}
            onSelect={(e) => {
              const { selectionStart, selectionEnd } = e.currentTarget
              setSelected(selectedIn(value, selectionStart, selectionEnd))
            }}
            onBlur={(e) => {
              // Into what is offered for the selected words, and no further.
              if (!e.currentTarget.closest('[data-block]')?.contains(e.relatedTarget)) onLeave()
            }}
            onKeyDown={(e) => {
              if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
                e.preventDefault()
                onLeave()
              }
            }}
          />
        ) : (
          <div
            role="button"
            tabIndex={0}
            aria-label={`${name}${isReadOnly ? ', read-only' : ', edit'}`}
            dir="auto"
            className={`-ml-3 cursor-text border-l-2 border-transparent pl-3 whitespace-pre-line hover:border-rule ${isReadOnly ? 'cursor-default text-ink-2' : ''}`}
            onClick={begin}
            onKeyDown={(e) => {
              if (e.key === 'Enter') begin()
              else if (e.key === 'ArrowDown') onMove(1)
              else if (e.key === 'ArrowUp') onMove(-1)
              else if (e.key === 'Delete' && !isReadOnly) onRemove()
              else return
              e.preventDefault()
            }}
          >
            <Marked text={value} hits={value === block.text ? block.hits : []} />
          </div>
        )}
        {editing && selected && forSelected(selected)}
        {editing && actions}
        {sectionWords !== null && (
          <span className="block font-sans text-[12px] leading-4 font-normal text-ink-3">
            {plural(sectionWords, 'word')}
          </span>
        )}
        {why && (
          <p role="status" className="font-sans text-[13px] leading-5 text-ink-2">
            {why}
          </p>
        )}
        {block.linksLost.length > 0 && (
          <p role="status" className="border-l-2 border-carmine pl-3 font-sans text-[13px] leading-5">
            {block.linksLost.length === 1
              ? 'A link goes with its words'
              : `${block.linksLost.length} links go with their words`}
            : {block.linksLost.join(', ')}. Undo, or keep some of the words.
          </p>
        )}
      </div>
    </div>
  )
}

const decorations: Record<PhraseKind, string> = {
  primary: 'decoration-quill decoration-2',
  secondary: 'decoration-sign decoration-dotted decoration-2',
  helper: 'decoration-sign decoration-1',
}

/** The primary phrase underlined, secondary ones dotted, helper words with a fine line. */
function Marked({ text, hits }: { text: string; hits: readonly Hit[] }) {
  const pieces: React.ReactNode[] = []
  let at = 0
  for (const hit of [...hits].sort((a, b) => a.from - b.from)) {
    if (hit.from < at) continue
    pieces.push(drawn(text.slice(at, hit.from)))
    pieces.push(
      <span
        key={hit.from}
        data-hit={hit.kind}
        className={`underline underline-offset-4 ${decorations[hit.kind]}`}
      >
        {drawn(text.slice(hit.from, hit.to))}
      </span>,
    )
    at = hit.to
  }
  pieces.push(drawn(text.slice(at)))
  return <>{pieces}</>
}
