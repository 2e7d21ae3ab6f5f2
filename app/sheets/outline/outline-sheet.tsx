import { outlineCommandOf, type OutlineCommandId } from '../../ui/commands.ts'
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import type { Decisions } from '../../../core/work/decisions.ts'
import { overEdit, type Edit } from '../../../core/page/edits/draft.ts'
import type { Decision } from '../../store/work-log.ts'
import type { Session } from '../../session/session.ts'
import { useNewest, useSame } from '../../ui/use-same.ts'
import type { MarkView, PageView } from '../../workers/page-view.ts'
import { Compare, type Compared } from './compare.tsx'
import { LookNotes } from './look-notes.tsx'
import { MainFound } from '../main-content-found.tsx'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { anchorsOfMarks, marksNear, useDrawnRows } from './drawn-rows.ts'
import { linesOf, moveLevel, parentsOf, shownLines, type Line } from './outline-lines.ts'
import { Actions } from './outline-parts.tsx'
import { wishes, type MakeWish, type WishName } from './outline-wishes.ts'
import { OutlineRow } from './outline-row.tsx'
import { Staircase } from './staircase.tsx'

/** Whether a line is a heading that the draft puts in. */
const isPutIn = (key: string) => key.startsWith('after@')

/** The outline as a staircase: six steps, each heading on its own, what is skipped as a visible gap. */
export function OutlineSheet({
  session,
  view,
  page,
  decisions,
  onSource,
}: {
  session: Session
  view: PageView | null
  page: string
  decisions: Decisions
  /** Shows a place in the source. */
  onSource(start: number): void
}) {
  const { siteId } = useParams()
  const [search, setSearch] = useSearchParams()
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const [selected, setSelected] = useState<string | null>(null)
  const [editing, setEditing] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const tree = useRef<HTMLDivElement>(null)

  const all = linesOf(view, decisions)
  const parents = parentsOf(all)
  const shown = shownLines(all, parents, folded)
  const rowOf = new Map(shown.map((i, row) => [i, row]))
  const lines = shown.map((i) => all[i]!)
  const selectedAt = all.findIndex((l) => l.key === selected)
  const at = selectedAt >= 0 && rowOf.has(selectedAt) ? selectedAt : (shown[0] ?? -1)
  const line = all[at]
  const withChildren = new Set(parents.filter((p) => p !== null))

  const { sheet, from, to, scrollTo } = useDrawnRows(lines.length, view?.id)
  const drawn = lines.slice(from, to + 1).map((l, i) => ({ line: l, row: from + i, index: shown[from + i]! }))

  const rowByStart = new Map<number, number>()
  all.forEach((l, i) => {
    const row = rowOf.get(i)
    if (l.start !== null && row !== undefined) rowByStart.set(l.start, row)
  })
  const marks = useMemo(
    () => (view?.marks ?? []).filter((mark) => mark.shownOn.outline !== undefined),
    [view],
  )
  const anchors = useSame(anchorsOfMarks(marks, rowByStart))
  const marksShown = useSame(marksNear(marks, anchors, from, to))

  const refocus = useRef(false)
  useLayoutEffect(() => {
    if (!refocus.current || !line) return
    const row = tree.current?.querySelector<HTMLElement>(`[data-key="${line.key}"]`)
    if (row) {
      refocus.current = false
      row.focus()
    } else if (rowOf.has(at)) scrollTo(rowOf.get(at)!)
  })

  /** Carries a wish out. What it comes to is worked out from all that was wished before: keys may come fast. */
  function fulfil(make: MakeWish, key: string) {
    const now = make(
      all,
      all.findIndex((l) => l.key === key),
    )
    if ('why' in now) return setSaid(now.why)
    if (now.changes.length > 0 && now.changes.every((c) => isPutIn(c.key)))
      return setSaid('This heading was inserted on the Galley sheet. Change it there.')
    setSaid(`${all.find((l) => l.key === key)?.text || 'Empty heading'}: ${now.label}`)
    refocus.current = tree.current?.contains(document.activeElement) ?? false
    void session.decide(now.label, () => {
      const decided = session.decisionsOf(page)
      const { view: seen } = session.get()
      const lines = linesOf(seen?.id === page ? seen : view, decided)
      const index = lines.findIndex((l) => l.key === key)
      const wish = index < 0 ? { why: '' } : make(lines, index)
      if ('why' in wish) return []
      return wish.changes
        .filter((c) => !isPutIn(c.key))
        .map(({ key, edit }): Decision => ({
          page,
          key: `edit:${key}`,
          after: edit === null ? undefined : overEdit(decided[`edit:${key}`] as Edit | undefined, edit),
        }))
    })
  }
  const wish = (which: WishName) => line && fulfil(wishes[which], line.key)
  const showSource = () => {
    if (line?.start != null) onSource(line.start)
    else setSaid('Its place will be known once the page has been checked.')
  }
  function fold(open: boolean) {
    if (!line) return
    const next = new Set(folded)
    if (open) next.delete(line.key)
    else if (withChildren.has(at) && !folded.has(line.key)) next.add(line.key)
    else if (parents[at] !== null && parents[at] !== undefined) {
      refocus.current = true
      return setSelected(all[parents[at]]!.key)
    }
    setFolded(next)
  }

  const row = rowOf.get(at) ?? 0
  function go(to: number) {
    const next = lines[Math.max(0, Math.min(lines.length - 1, to))]
    refocus.current = true
    if (next) setSelected(next.key)
  }
  function carryOut(command: OutlineCommandId, of: Line) {
    switch (command) {
      case 'down':
        return go(row + 1)
      case 'up':
        return go(row - 1)
      case 'first':
        return go(0)
      case 'last':
        return go(lines.length - 1)
      case 'pageDown':
        return go(row + 10)
      case 'pageUp':
        return go(row - 10)
      case 'unfold':
        return fold(true)
      case 'fold':
        return fold(false)
      case 'words':
        return setEditing(of.key)
      case 'leave':
        return document.getElementById('after-outline')?.focus()
      case 'source':
        return showSource()
      default:
        return fulfil(wishes[command], of.key)
    }
  }
  function onKeyDown(event: React.KeyboardEvent) {
    const command = editing === null && line ? outlineCommandOf(event) : null
    if (command === null) return
    event.preventDefault()
    carryOut(command, line!)
  }

  const actions = useNewest({
    fold(key: string) {
      const next = new Set(folded)
      if (!next.delete(key)) next.add(key)
      setFolded(next)
    },
    select: setSelected,
    edit: setEditing,
    done(key: string, text: string | null) {
      setEditing(null)
      refocus.current = true
      if (text === null || text === all.find((l) => l.key === key)?.text) return
      fulfil(() => ({ label: 'Heading’s words', changes: [{ key, edit: { value: text } }] }), key)
    },
    goTo(mark: MarkView) {
      if (mark.start !== null) onSource(mark.start)
    },
    compareWith(others: Compared[]) {
      setSearch(
        (now) => {
          const next = new URLSearchParams(now)
          next.delete('with')
          for (const other of others) next.append('with', 'id' in other ? other.id : other.address)
          return next
        },
        { preventScrollReset: true },
      )
    },
  })
  const compared = useSame(
    search.getAll('with').map((other): Compared => (isAddress(other) ? { address: other } : { id: other })),
  )

  return (
    <BesideMargin
      session={session}
      page={page}
      view={view}
      marks={marksShown}
      anchors={anchors}
      onGoTo={actions.goTo}
      clean="The outline is clean."
    >
      <Staircase
        sheet={sheet}
        lines={lines}
        drawn={drawn}
        all={all}
        parents={parents}
        rowOf={rowOf}
        onMoveBy={(key, levels) => fulfil((of, i) => moveLevel(of, i, levels, false), key)}
      >
        {lines.length === 0 && (
          <p className="absolute top-12 left-12 max-w-md font-serif text-[15px] text-ink-2 italic">
            {view
              ? 'This page has no headings. An H1 that names the page, and an H2 for each section, would give it an outline.'
              : 'Reading …'}
          </p>
        )}
        {lines.length > 0 && (
          <div ref={tree} role="tree" aria-label="Headings" data-testid="outline" onKeyDown={onKeyDown}>
            {drawn.map(({ line: l, row, index }) => (
              <OutlineRow
                key={l.key}
                line={l}
                row={row}
                of={lines.length}
                selected={index === at}
                editing={editing === l.key}
                expanded={withChildren.has(index) ? !folded.has(l.key) : null}
                actions={actions}
              />
            ))}
          </div>
        )}
      </Staircase>
      {line && (
        <Actions
          line={line}
          onWish={wish}
          onEdit={() => setEditing(line.key)}
          onSource={showSource}
          templates={rulesAddress(siteId!, line)}
        />
      )}
      <p role="status" className="mt-1 min-h-5 text-[13px] text-ink-2" data-testid="outline-said">
        {said}
      </p>
      {view && <MainFound session={session} by={view.mainBy} words={view.words} />}
      <LookNotes page={page} decisions={decisions} view={view} />
      <Compare
        session={session}
        page={page}
        view={view}
        phrase={search.get('for')}
        compared={compared}
        onChoose={actions.compareWith}
      />
      <p className="mt-4 text-[13px]">
        <Link className="action" to={`/sites/${siteId}/templates`}>
          Repeated headings on many pages …
        </Link>
      </p>
    </BesideMargin>
  )
}

const isAddress = (other: string) => /^https?:\/\//i.test(other)

/** Where a rule for all headings like this one is made; null for one that nothing tells from others. */
function rulesAddress(siteId: string, line: Line): string | null {
  const { className, landmark } = line
  const isTold = className !== '' || (landmark !== null && landmark !== 'main')
  if (!isTold) return null
  const asked = new URLSearchParams({
    tag: line.kind === 'was' ? `h${line.level}` : line.tag,
    ...(className !== '' ? { class: className.split(/\s+/)[0]! } : landmark ? { landmark } : {}),
  })
  return `/sites/${siteId}/templates?${asked}`
}
