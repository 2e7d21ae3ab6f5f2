/** Which rows of a long outline are drawn, and where its marks stand. */
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState } from 'react'
import type { MarkView } from '../../workers/page-view.ts'
import { ROW, TOP } from './outline-row.tsx'

/** So many lines are drawn whole; of more, those in and near the window. */
const WHOLE = 120
/** So many marks are laid out whole; of more, those near the lines that are drawn. */
const MARKS = 60

/** `on` is what the sheet shows: its place on the page is asked for again when that changes. */
export function useDrawnRows(rows: number, on: unknown) {
  const sheet = useRef<HTMLElement>(null)
  const [top, setTop] = useState(0)
  useLayoutEffect(() => {
    const box = sheet.current
    if (box) setTop(box.getBoundingClientRect().top + scrollY)
  }, [on])
  const virtual = useWindowVirtualizer({
    count: rows,
    estimateSize: () => ROW,
    overscan: 24,
    scrollMargin: top + TOP,
    initialRect: { width: 1280, height: 800 },
  })
  const { range } = virtual
  const whole = rows <= WHOLE
  return {
    sheet,
    from: whole || !range ? 0 : Math.max(0, range.startIndex - 24),
    to: whole ? rows - 1 : range ? Math.min(rows - 1, range.endIndex + 24) : WHOLE,
    scrollTo: (row: number) => virtual.scrollToIndex(row, { align: 'center' }),
  }
}

/**
 * How far down the sheet each mark stands, in px: level with its line. What is said between headings, such as on a line
 * that looks like one, stands by the section that it is in.
 */
export function anchorsOfMarks(
  marks: MarkView[],
  rowByStart: ReadonlyMap<number, number>,
): ReadonlyMap<string, number> {
  const rowNear = (start: number): number | undefined => {
    let last: number | undefined
    for (const [at, row] of rowByStart) if (at <= start && (last === undefined || row > last)) last = row
    return last
  }
  return new Map(
    marks.map(({ id, start }) => {
      const row = start === null ? undefined : (rowByStart.get(start) ?? rowNear(start))
      return [id, row === undefined ? 0 : TOP + row * ROW + 4]
    }),
  )
}

/** Marks to be laid out: all of a few; of many, those near the rows that are drawn. */
export function marksNear(
  marks: MarkView[],
  anchors: ReadonlyMap<string, number>,
  from: number,
  to: number,
): MarkView[] {
  if (marks.length <= MARKS) return marks
  const isNear = ({ id }: MarkView) => {
    const anchor = anchors.get(id) ?? 0
    return anchor >= TOP + (from - 4) * ROW && anchor <= TOP + (to + 4) * ROW
  }
  return marks.filter(isNear).slice(0, MARKS)
}
