import { useDraggable } from '@dnd-kit/core'
import { dequal } from 'dequal'
import { memo, useEffect, useRef } from 'react'
import { landmarkNames } from '../../ui/landmark-names.ts'
import type { Line } from './outline-lines.ts'

export const ROW = 36
export const STEP = 102
export const LEFT = 48
export const TOP = 40
export const WIDTH = 658
export const xOf = (level: number) => LEFT + (Math.min(level, 6) - 1) * STEP

/** What a line is, in words: the same for those who hear it as the picture says to those who see it. */
function nameOf(line: Line): string {
  const what =
    line.kind === 'heading'
      ? `H${line.level}`
      : line.kind === 'was'
        ? `a paragraph, was H${line.level}`
        : 'looks like a heading'
  return [
    line.text || 'Empty heading',
    what,
    line.landmark ? `in ${landmarkNames[line.landmark]}` : '',
    line.hidden ? 'hidden' : '',
    line.images > 0 ? 'with a picture' : '',
    line.hasKeyword ? 'has the keyword' : '',
    line.kind === 'heading' ? `${line.words} words` : '',
  ]
    .filter(Boolean)
    .join(', ')
}

/** What can be done with a line; the same object for all of them, for as long as the outline is on the sheet. */
export interface RowActions {
  fold(key: string): void
  select(key: string): void
  edit(key: string): void
  /** Typing in it has ended; null where what was typed is given up. */
  done(key: string, text: string | null): void
}

/** One line of the staircase: a heading on its step, or a line that is none. Drawn anew where what it says is another. */
export const OutlineRow = memo(function OutlineRow({
  line,
  row,
  of,
  selected,
  editing,
  expanded,
  actions,
}: {
  line: Line
  row: number
  of: number
  selected: boolean
  editing: boolean
  /** Whether what hangs below is shown; null where nothing does. */
  expanded: boolean | null
  actions: RowActions
}) {
  const heading = line.kind === 'heading'
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: line.key,
    disabled: editing || !heading,
  })
  const left = xOf(line.level) + 8
  const shift = transform ? Math.round(transform.x / STEP) * STEP : 0
  const size = !heading ? 14 : line.level === 1 ? 17 : line.level === 2 ? 16 : 15
  const dim = line.hidden || !(line.landmark === 'main' || line.landmark === null || line.level === 1)
  return (
    <div
      ref={setNodeRef}
      role="treeitem"
      aria-level={line.level}
      aria-selected={selected}
      aria-setsize={of}
      aria-posinset={row + 1}
      {...(expanded === null ? {} : { 'aria-expanded': expanded })}
      aria-label={nameOf(line)}
      data-index={row}
      data-key={line.key}
      data-kind={line.kind}
      tabIndex={selected ? 0 : -1}
      onFocus={() => actions.select(line.key)}
      onDoubleClick={heading ? () => actions.edit(line.key) : undefined}
      {...(editing ? {} : listeners)}
      className={`absolute flex h-[30px] items-baseline gap-2.5 pr-1 pl-1 whitespace-nowrap ${heading ? (isDragging ? 'cursor-grabbing' : 'cursor-grab') : ''} ${selected ? 'bg-quill-soft' : ''}`}
      style={{
        top: TOP + row * ROW + 3,
        left: left + shift,
        maxWidth: WIDTH - 8 - left - shift,
        transition: isDragging ? 'none' : undefined,
        touchAction: 'pan-y',
      }}
    >
      {editing ? (
        <HeadingInput text={line.text} onDone={(text) => actions.done(line.key, text)} />
      ) : (
        <>
          {expanded === false && (
            // Presentational: a click in the row, said by aria-expanded.
            <span
              aria-hidden
              className="-ml-3 w-2 font-serif leading-[30px] text-ink-3"
              onClick={() => actions.fold(line.key)}
            >
              +
            </span>
          )}
          <span
            dir="auto"
            className={`truncate font-serif leading-[30px] ${line.text === '' ? 'text-carmine italic' : !heading ? 'text-ink-2 italic' : dim ? 'text-ink-2' : ''} ${line.hidden ? 'line-through decoration-dotted' : ''} ${line.hasKeyword ? 'underline decoration-quill decoration-1 underline-offset-4' : ''}`}
            style={{ fontSize: size }}
          >
            {line.text || 'empty'}
          </span>
          <span className={`text-[12px] ${selected ? 'text-ink-2' : 'text-ink-3'}`}>
            {[
              line.kind === 'was' ? `was H${line.level}` : line.kind === 'like' ? 'looks like a heading' : '',
              line.hidden ? 'hidden' : '',
              line.images > 0 ? 'picture' : '',
              heading && line.words > 0 ? `${line.words} words` : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
        </>
      )}
    </div>
  )
}, dequal)

function HeadingInput({ text, onDone }: { text: string; onDone(text: string | null): void }) {
  const input = useRef<HTMLInputElement>(null)
  const done = useRef(false)
  useEffect(() => input.current?.select(), [])
  const finish = (value: string | null) => {
    if (done.current) return
    done.current = true
    onDone(value)
  }
  return (
    <input
      ref={input}
      aria-label="The heading’s words"
      dir="auto"
      defaultValue={text}
      size={Math.max(12, text.length)}
      className="border-b border-ink bg-paper font-serif text-[16px]"
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Enter') finish(e.currentTarget.value)
        if (e.key === 'Escape') finish(null)
      }}
      onBlur={(e) => finish(e.currentTarget.value)}
    />
  )
}
