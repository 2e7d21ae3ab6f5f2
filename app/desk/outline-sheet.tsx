import { DndContext, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { Landmark } from '../../core/page/facts.ts'
import type { Session } from '../store/session.ts'
import type { HeadingView, PageView } from '../workers/evaluate.ts'
import { Margin } from './margin.tsx'
import { Refused } from './refused.tsx'

const ROW = 36
const STEP = 102
const LEFT = 48
const TOP = 40
const names: Record<Landmark, string> = {
  header: 'header',
  nav: 'menu',
  main: 'main',
  aside: 'aside',
  footer: 'footer',
  search: 'search',
}

/** Landmark bands: runs of neighbouring headings that live in the same landmark. */
function bands(headings: HeadingView[]): { landmark: Landmark | null; from: number; to: number }[] {
  const out: { landmark: Landmark | null; from: number; to: number }[] = []
  headings.forEach((h, i) => {
    const last = out.at(-1)
    if (last && last.landmark === h.landmark) last.to = i
    else out.push({ landmark: h.landmark, from: i, to: i })
  })
  return out
}

/** For each heading, the one it hangs from: the nearest before it, in its landmark, on a higher step. */
function parents(headings: HeadingView[]): (number | null)[] {
  return Array.from(headings, (h, i) => {
    for (let j = i - 1; j >= 0; j--) {
      const other = headings[j]!
      if (other.landmark === h.landmark && other.level < h.level) return j
    }
    return null
  })
}

const x = (level: number) => LEFT + (Math.min(level, 6) - 1) * STEP

/** The outline as a staircase: six steps, each heading on its own, what is skipped as a visible gap. */
export function OutlineSheet({
  session,
  view,
  path,
}: {
  session: Session
  view: PageView | null
  path: string
}) {
  const headings = (view?.headings ?? []).filter(
    (h) => !h.hidden && (h.role === null || h.role === 'heading'),
  )
  const [selected, setSelected] = useState(0)
  const [editing, setEditing] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const tree = useRef<HTMLDivElement>(null)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }))
  const at = Math.min(selected, Math.max(0, headings.length - 1))

  const marks = (view?.marks ?? []).filter((m) => m.family === 'headings')
  const anchors = new Map(
    marks.map((m) => {
      const i = headings.findIndex((h) => h.start === m.start)
      return [m.id, i < 0 ? 0 : TOP + i * ROW + 4]
    }),
  )

  const refocus = useRef(false)
  useLayoutEffect(() => {
    if (!refocus.current) return
    refocus.current = false
    tree.current?.querySelector<HTMLElement>(`[data-index="${at}"]`)?.focus()
  })

  function move(heading: HeadingView, by: number) {
    const level = Math.min(6, Math.max(1, heading.level + by))
    if (level === heading.level) return setSaid(by > 0 ? 'H6 is the last step.' : 'H1 is the first step.')
    if (heading.endStart === null)
      return setSaid(
        'This heading has no end tag of its own in the source; it cannot be moved with certainty.',
      )
    const now = session.decisionsOf(path)[`edit:${heading.key}`] as object | undefined
    setSaid(`${heading.text || 'Empty heading'}: H${level}`)
    void session.decide(`Heading to H${level}`, [
      { path, key: `edit:${heading.key}`, after: { ...now, level } },
    ])
  }

  function onKeyDown(event: React.KeyboardEvent) {
    if (editing !== null) return
    const heading = headings[at]
    if (!heading) return
    const go = (i: number) => {
      event.preventDefault()
      refocus.current = true
      setSelected(Math.max(0, Math.min(headings.length - 1, i)))
    }
    switch (event.key) {
      case 'ArrowDown':
        if (!event.altKey) go(at + 1)
        break
      case 'ArrowUp':
        if (!event.altKey) go(at - 1)
        break
      case 'Home':
        go(0)
        break
      case 'End':
        go(headings.length - 1)
        break
      case 'Tab':
        event.preventDefault()
        refocus.current = true
        move(heading, event.shiftKey ? -1 : 1)
        break
      case 'Enter':
        event.preventDefault()
        setEditing(heading.key)
        break
      case 'Escape':
        document.getElementById('after-outline')?.focus()
        break
    }
  }

  const parent = parents(headings)
  const height = TOP + headings.length * ROW + 16
  return (
    <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <div className="min-w-0 overflow-x-auto">
        <DndContext
          id="outline"
          sensors={sensors}
          onDragEnd={({ active, delta }) => {
            const heading = headings.find((h) => h.key === active.id)
            const by = Math.round(delta.x / STEP)
            if (heading && by !== 0) move(heading, by)
          }}
        >
          <section
            className="sheet relative overflow-hidden"
            style={{ height: Math.max(height, 120), width: 658 }}
          >
            {[1, 2, 3, 4, 5, 6].map((level) => (
              <div
                key={level}
                aria-hidden
                className="absolute top-9 bottom-0 border-l border-rule-2"
                style={{ left: x(level) }}
              >
                <span className="absolute -top-6 left-0 text-[12px] font-semibold text-ink-3">H{level}</span>
              </div>
            ))}
            {Array.from(bands(headings), (band) => (
              <div
                key={band.from}
                aria-hidden
                className={`absolute left-0 ${band.landmark === 'main' ? '' : 'right-0'} ${band.landmark ? 'bg-paper-2' : ''}`}
                style={{
                  top: TOP + band.from * ROW + 2,
                  height: (band.to - band.from + 1) * ROW - 4,
                  ...(band.landmark === 'main' ? { width: 30 } : {}),
                }}
              >
                {band.landmark &&
                  (band.to > band.from ? (
                    <span className="absolute inset-y-0 left-0 grid w-[30px] place-items-center">
                      <span
                        className="font-serif text-[12px] text-ink-2 italic"
                        style={{ writingMode: 'vertical-rl', transform: 'rotate(180deg)' }}
                      >
                        {names[band.landmark]}
                      </span>
                    </span>
                  ) : (
                    <span className="absolute inset-y-0 left-1 flex items-center font-serif text-[12px] text-ink-2 italic">
                      {names[band.landmark]}
                    </span>
                  ))}
              </div>
            ))}
            <svg className="pointer-events-none absolute inset-0" width={658} height={height} aria-hidden>
              <defs>
                <pattern
                  id="gap"
                  width="5"
                  height="5"
                  patternUnits="userSpaceOnUse"
                  patternTransform="rotate(45)"
                >
                  <line x1="0" y1="0" x2="0" y2="5" stroke="var(--carmine)" strokeWidth="1.4" />
                </pattern>
              </defs>
              {Array.from(headings, (h, i) => {
                const p = parent[i]
                if (p === null || p === undefined) return null
                const from = headings[p]!
                const y = TOP + i * ROW + ROW / 2
                const px = x(from.level) + 4
                return (
                  <g key={h.key} stroke="var(--sign)" fill="none">
                    <path d={`M${px} ${TOP + p * ROW + ROW - 6}V${y}H${x(h.level) + 4}`} />
                    {h.level - from.level > 1 && (
                      <rect
                        x={x(from.level + 1) + 4}
                        y={y - 7}
                        width={(h.level - from.level - 1) * STEP - 8}
                        height="14"
                        fill="url(#gap)"
                        stroke="none"
                      />
                    )}
                  </g>
                )
              })}
            </svg>
            {headings.length === 0 && (
              <p className="absolute top-12 left-12 max-w-md font-serif text-[15px] text-ink-2 italic">
                {view
                  ? 'This page has no headings. An H1 that names the page, and an H2 for each section, would give it an outline.'
                  : 'Reading …'}
              </p>
            )}
            {headings.length > 0 && (
              <div ref={tree} role="tree" aria-label="Headings" data-testid="outline" onKeyDown={onKeyDown}>
                {Array.from(headings, (heading, i) => (
                  <Heading
                    key={heading.key}
                    heading={heading}
                    index={i}
                    selected={i === at}
                    editing={editing === heading.key}
                    onSelect={() => setSelected(i)}
                    onEdit={() => setEditing(heading.key)}
                    onDone={(text) => {
                      setEditing(null)
                      refocus.current = true
                      if (text === null || text === heading.text) return
                      const now = session.decisionsOf(path)[`edit:${heading.key}`] as object | undefined
                      void session.decide('Heading’s words', [
                        { path, key: `edit:${heading.key}`, after: { ...now, value: text } },
                      ])
                    }}
                  />
                ))}
              </div>
            )}
          </section>
        </DndContext>
        <p
          id="after-outline"
          tabIndex={-1}
          className="mt-3 flex flex-wrap gap-x-5 gap-y-1 text-[13px] text-ink-2"
        >
          <span>
            <kbd>Tab</kbd> one step in
          </span>
          <span>
            <kbd>Shift Tab</kbd> one step out
          </span>
          <span>
            <kbd>Enter</kbd> change the words
          </span>
          <span>
            <kbd>Esc</kbd> leave the outline
          </span>
          <span>or drag a heading sideways</span>
        </p>
        <p role="status" className="sr-only">
          {said}
        </p>
        <Refused edits={view?.refused ?? []} />
      </div>
      <Margin
        path={path}
        marks={marks}
        anchors={anchors}
        session={session}
        clean={view ? 'The outline is clean.' : 'Reading …'}
      />
    </div>
  )
}

function Heading({
  heading,
  index,
  selected,
  editing,
  onSelect,
  onEdit,
  onDone,
}: {
  heading: HeadingView
  index: number
  selected: boolean
  editing: boolean
  onSelect(): void
  onEdit(): void
  onDone(text: string | null): void
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: heading.key,
    disabled: editing,
  })
  const left = x(heading.level) + 8
  const shift = transform ? Math.round(transform.x / STEP) * STEP : 0
  const size = heading.level === 1 ? 17 : heading.level === 2 ? 16 : 15
  return (
    <div
      ref={setNodeRef}
      role="treeitem"
      aria-level={heading.level}
      aria-selected={selected}
      aria-label={`${heading.text || 'Empty heading'}, H${heading.level}${heading.landmark ? `, in ${names[heading.landmark]}` : ''}, ${heading.words} words`}
      data-index={index}
      data-key={heading.key}
      tabIndex={selected ? 0 : -1}
      onFocus={onSelect}
      onDoubleClick={onEdit}
      {...(editing ? {} : listeners)}
      className={`absolute flex h-[30px] items-baseline gap-2.5 pr-1 pl-1 whitespace-nowrap ${isDragging ? 'cursor-grabbing' : 'cursor-grab'} ${selected ? 'bg-quill-soft' : ''}`}
      style={{
        top: TOP + index * ROW + 3,
        left: left + shift,
        maxWidth: 650 - left - shift,
        transition: isDragging ? 'none' : undefined,
        touchAction: 'pan-y',
      }}
    >
      {editing ? (
        <HeadingInput text={heading.text} onDone={onDone} />
      ) : (
        <>
          <span
            className={`truncate font-serif leading-[30px] ${heading.text === '' ? 'text-carmine italic' : heading.landmark === 'main' || heading.landmark === null || heading.level === 1 ? '' : 'text-ink-2'} ${heading.hasKeyword ? 'underline decoration-quill decoration-1 underline-offset-4' : ''}`}
            style={{ fontSize: size }}
          >
            {heading.text || 'empty'}
          </span>
          {heading.words > 0 && <span className="text-[12px] text-ink-3">{heading.words} words</span>}
        </>
      )}
    </div>
  )
}

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
