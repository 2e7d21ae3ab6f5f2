import { takesOf, type Decisions, type Take } from '../../../core/work/decisions.ts'
import { measure, type Role } from '../../../core/measure/snippet.ts'
import { foldText } from '../../../core/measure/width.ts'
import type { HouseStyle } from '../../../core/rules/house-style.ts'
import { fillTokens } from '../../../core/wording/tokens.ts'
import type { Session } from '../../session/session.ts'
import { takeChosen } from '../../session/take-choice.ts'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { PageView } from '../../workers/page-view.ts'
import { Drawer } from '../../ui/drawer.tsx'
import { emphasised } from '../../result/emphasis.ts'
import { rawOffset } from '../../result/raw-offset.ts'
import { Runs } from '../../result/runs.tsx'
import { sliceRuns } from '../../result/emphasis.ts'

const names: Record<Role, string> = { title: 'title', description: 'meta description' }

/** Adds a wording to the page's takes, once. */
export function keepTake(session: Session, page: string, role: Role, take: Take): void {
  if (take.text.trim() === '') return
  void session.decide(`Take of the ${names[role]}`, () => {
    const takes = takesOf(session.decisionsOf(page), role)
    return takes.some((t) => t.text === take.text)
      ? []
      : [{ page, key: `takes:${role}`, after: [...takes, take] }]
  })
}

/** Puts a wording in the result, as one step. */
export function chooseTake(
  session: Session,
  page: string,
  role: Role,
  text: string,
  stood: { present: string; source: string | null | undefined },
): void {
  void session.decide(`Take of the ${names[role]} chosen`, () =>
    takeChosen(page, session.decisionsOf(page), role, text, stood),
  )
}

interface TakesProps {
  session: Session
  page: string
  decisions: Decisions
  view: PageView | null
  style: HouseStyle
  /** The wordings that stand in the result, as typed. */
  present: Record<Role, string>
  keywords: readonly string[]
  lang: string | null
}
const REST = 250

/** Wordings among which the editor chooses. */
export function Takes(props: TakesProps) {
  const kept = takesOf(props.decisions, 'title').length + takesOf(props.decisions, 'description').length
  return (
    <Drawer
      id="takes"
      title="Takes: other wordings"
      summary={
        kept > 0
          ? `${kept} kept, to compare and choose from`
          : 'none kept yet; some are drafted from the page'
      }
    >
      <TakesList {...props} />
    </Drawer>
  )
}

/** One below the other at true size, so that their ends can be compared. */
function TakesList({ session, page, decisions, view, style, present, keywords, lang }: TakesProps) {
  const kept = { title: takesOf(decisions, 'title'), description: takesOf(decisions, 'description') }
  // What is drafted depends on the page and on what is typed: asked for once the typing rests.
  const asked = JSON.stringify([kept, present, decisions['keyword:primary']])
  const judged = useAnswer(
    () => core().judgeTakes(page, session.decisionsOf(page)),
    [page, asked, session],
    REST,
  )
  const drafted = judged?.drafted ?? { title: [], description: [] }
  const marks = judged?.marks ?? {}

  const choose = (role: Role, text: string) =>
    chooseTake(session, page, role, text, {
      present: present[role],
      source: role === 'title' ? view?.sourceTitle : view?.sourceDescription,
    })

  return (
    <>
      {(['title', 'description'] as const).map((role) => (
        <div key={role} className="mt-1 mb-5 last:mb-0">
          <div className="flex items-baseline gap-4 text-[13px]">
            <h3 className="font-sans font-semibold">{role === 'title' ? 'Titles' : 'Descriptions'}</h3>
            <button
              type="button"
              className="action"
              title={role === 'title' ? 'Alt+T' : undefined}
              disabled={present[role].trim() === '' || kept[role].some((t) => t.text === present[role])}
              onClick={() => keepTake(session, page, role, { text: present[role], from: '' })}
            >
              Keep the current one as a take
            </button>
          </div>
          <ul
            className="relative mt-2"
            style={{ width: style.slots[role].wide.column }}
            data-testid={`takes-${role}`}
          >
            {role === 'title' && (kept.title.length > 0 || drafted.title.length > 0) && (
              <span
                aria-hidden
                className="absolute top-0 bottom-0 w-px bg-carmine"
                style={{ left: style.slots.title.wide.column - 1 }}
              />
            )}
            {kept[role].map((take) => (
              <TakeLine
                key={take.text}
                take={take}
                role={role}
                style={style}
                view={view}
                keywords={keywords}
                lang={lang}
                chosen={foldText(take.text) === foldText(present[role])}
                marks={marks[`${role}\n${take.text}`]}
                onChoose={() => choose(role, take.text)}
                onRemove={() =>
                  void session.decide('Take removed', () => {
                    const left = takesOf(session.decisionsOf(page), role).filter((t) => t.text !== take.text)
                    return [{ page, key: `takes:${role}`, after: left.length > 0 ? left : undefined }]
                  })
                }
              />
            ))}
            {drafted[role]
              .filter((d) => !kept[role].some((t) => t.text === d.text))
              .map((take) => (
                <TakeLine
                  key={take.text}
                  take={take}
                  role={role}
                  style={style}
                  view={view}
                  keywords={keywords}
                  lang={lang}
                  drafted
                  chosen={false}
                  marks={marks[`${role}\n${take.text}`]}
                  onChoose={() => choose(role, take.text)}
                  onKeep={() => keepTake(session, page, role, { text: take.text, from: take.from })}
                />
              ))}
          </ul>
          {judged && kept[role].length + drafted[role].length === 0 && (
            <p className="text-[13px] text-ink-3">
              The page has nothing to draft a {names[role]} from. Type one above and keep it.
            </p>
          )}
        </div>
      ))}
    </>
  )
}

function TakeLine({
  take,
  role,
  style,
  view,
  keywords,
  lang,
  chosen,
  drafted = false,
  marks,
  onChoose,
  onRemove,
  onKeep,
}: {
  take: Take
  role: Role
  style: HouseStyle
  view: PageView | null
  keywords: readonly string[]
  lang: string | null
  chosen: boolean
  drafted?: boolean
  marks: string[] | undefined
  onChoose(): void
  onRemove?(): void
  onKeep?(): void
}) {
  const { text } = fillTokens(take.text, view?.tokens ?? {})
  const m = measure(text, role, style.slots)
  const runs = emphasised(text, keywords, lang)
  const at = m.wide.cut ? rawOffset(text, m.wide.shown.length) : text.length
  const { size } = style.slots[role].wide
  const state = m.wide.state === 'at-risk' ? 'at risk' : m.wide.state
  return (
    <li className={`py-1.5 ${drafted ? '' : 'bg-paper-2'}`} data-testid="take">
      <p
        className={`result ${role === 'title' ? 'overflow-hidden whitespace-nowrap text-quill' : 'text-ink'}`}
        style={{ fontSize: size, lineHeight: role === 'title' ? '26px' : '20px' }}
        lang={lang ?? undefined}
      >
        <Runs runs={sliceRuns(runs, 0, at)} />
        <span className="text-faded">
          <Runs runs={sliceRuns(runs, at, text.length)} />
        </span>
      </p>
      <p className="flex flex-wrap items-baseline gap-x-3.5 text-[12.5px] text-ink-2">
        <span className={m.wide.state === 'cut' ? 'font-semibold text-carmine' : ''}>
          {Math.round(m.px)} px, {state}
          {m.narrow.state === 'cut' && m.wide.state !== 'cut' && '; cut on narrow screens'}
        </span>
        {take.from && <span className="text-ink-3">from {take.from}</span>}
        {marks && <span>{marks.length === 0 ? 'no marks' : marks.join('; ')}</span>}
        <span className="ml-auto flex gap-3.5 pr-2">
          {chosen ? (
            <strong className="font-semibold text-ink">in the result</strong>
          ) : (
            <button type="button" className="action" onClick={onChoose}>
              Choose
            </button>
          )}
          {onKeep && (
            <button type="button" className="quiet" onClick={onKeep}>
              Keep
            </button>
          )}
          {onRemove && (
            <button type="button" className="quiet" onClick={onRemove}>
              Remove
            </button>
          )}
        </span>
      </p>
    </li>
  )
}
