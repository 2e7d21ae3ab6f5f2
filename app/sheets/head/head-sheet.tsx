import { useRef, useState } from 'react'
import type { Edit } from '../../../core/page/edits/draft.ts'
import { useAnchors } from '../../margin/use-anchors.ts'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { SheetProps } from '../sheet-props.ts'
import type { HeadAround } from './head-around.ts'
import { SourceExcerpt } from './head-parts.tsx'
import { CodePart, LinksPart, MetasPart } from './metas-and-links.tsx'
import { PagePart, RobotsPart } from './page-and-robots.tsx'
import { PhoneAndWeight } from './phone/phone-and-weight.tsx'
import { ServedPart } from './served.tsx'
import { BrokenPart, ImagesPart, LandmarksPart } from './structure.tsx'

/** The page's shell as an editor reads it: what the head says, landmarks, pictures, what is broken; the source beside. */
export function HeadSheet({ session, row, view, decisions }: SheetProps) {
  const page = row.id
  const head = useAnswer(view && (() => core().headOf(page, session.decisionsOf(page))), [
    view,
    page,
    session,
  ])
  const [at, place] = useState<number | null>(null)
  // The source stands where it does not cover what is said beside the line that was chosen.
  const [below, setBelow] = useState(true)
  const setAt = (start: number | null) => {
    const row = sheet.current?.querySelector(`[data-start="${start}"]`)
    if (row) setBelow(row.getBoundingClientRect().top < innerHeight / 2)
    place(start)
  }
  const excerpt = useAnswer(
    at === null ? null : () => core().excerptOf(page, session.decisionsOf(page), at),
    [at, page, session, view],
  )
  const sheet = useRef<HTMLElement>(null)

  const marks = (view?.marks ?? []).filter((mark) => mark.shownOn.head !== undefined)
  const anchors = useAnchors(
    sheet,
    marks,
    head,
    (mark, box) =>
      box.querySelector(`[data-start="${mark.start}"]`) ??
      box.querySelector(`[data-part="${mark.shownOn.head}"]`),
  )

  if (!head) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>

  const around: HeadAround = {
    head,
    session,
    decisions,
    view,
    editOf: (key) => decisions[`edit:${key}`] as Edit | undefined,
    type: (key, value, label) => session.type(page, `edit:${key}`, { value } satisfies Edit, label),
    decide: (key, edit, label) => void session.decide(label, [{ page, key: `edit:${key}`, after: edit }]),
    show: setAt,
  }
  return (
    <BesideMargin
      session={session}
      page={page}
      view={view}
      marks={marks}
      anchors={anchors}
      onGoTo={(mark) => setAt(mark.start)}
      clean="Nothing to mend in the head and the page’s structure."
      below={
        at !== null &&
        excerpt && <SourceExcerpt excerpt={excerpt} below={below} onClose={() => setAt(null)} />
      }
    >
      <section
        ref={sheet}
        className="sheet min-w-0 px-7 py-5 max-[700px]:px-4"
        aria-label="Head"
        data-testid="head"
      >
        <ServedPart row={row} />
        <PagePart {...around} />
        <RobotsPart {...around} />
        <MetasPart {...around} />
        <LinksPart {...around} />
        <CodePart {...around} />
        <LandmarksPart {...around} />
        <ImagesPart {...around} />
        <BrokenPart {...around} />
        <PhoneAndWeight {...around} page={page} />
      </section>
    </BesideMargin>
  )
}
