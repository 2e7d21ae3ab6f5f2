import { useLayoutEffect, useState, type RefObject } from 'react'
import type { MarkView } from '../workers/page-view.ts'

/**
 * How far from a sheet's top what each mark is about stands, in px, by the mark's id; measured when marks or content
 * change, and when the sheet grows or shrinks, as it does when something in it is opened.
 */
export function useAnchors(
  sheet: RefObject<HTMLElement | null>,
  marks: readonly MarkView[],
  content: unknown,
  elementFor: (mark: MarkView, sheet: HTMLElement) => Element | null,
): ReadonlyMap<string, number> {
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const marksKey = marks.map((m) => m.id).join('|')
  useLayoutEffect(() => {
    const box = sheet.current
    if (!box) return
    const measure = () => {
      const next = new Map<string, number>()
      for (const mark of marks) {
        const element = elementFor(mark, box)
        if (element) next.set(mark.id, element.getBoundingClientRect().top - box.getBoundingClientRect().top)
      }
      setAnchors((before) => (isSame(before, next) ? before : next))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(box)
    return () => observer.disconnect()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that moves a mark
  }, [marksKey, content])
  return anchors
}

const isSame = (a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): boolean =>
  a.size === b.size && [...a].every(([id, at]) => b.get(id) === at)
