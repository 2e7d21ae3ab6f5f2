import { useLayoutEffect, useRef, useState } from 'react'
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import { languagePattern } from '../../../core/words/language.ts'
import type { Session } from '../../session/session.ts'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { PageView } from '../../workers/page-view.ts'
import { HeadImages } from './head-images.tsx'
import { AddMeta, ExtraCode, LineButton, Part, Row, rowKey, SourceExcerpt } from './head-parts.tsx'
import { MainFound } from '../main-content-found.tsx'
import { Margin } from '../../margin/margin.tsx'
import { landmarkNames } from '../../ui/landmark-names.ts'
import { Refused } from '../../margin/refused.tsx'
import { TypedLine } from '../../ui/typed-line.tsx'

/** Directives as an editor chooses them, and what each does; from memory, as engines document them. */
const directives: [string, string][] = [
  ['noindex', 'The page is not shown in results.'],
  ['nofollow', 'Its links are not followed.'],
  ['nosnippet', 'Results show no description or passage under its title.'],
  ['noarchive', 'Results offer no cached copy of it.'],
  ['noimageindex', 'Its pictures are not shown in results.'],
  ['notranslate', 'Results offer no translation of it.'],
]

/** The page's shell as an editor reads it: what the head says, landmarks, pictures, what is broken; the source beside. */
export function HeadSheet({
  session,
  view,
  page,
  decisions,
}: {
  session: Session
  view: PageView | null
  page: string
  decisions: Decisions
}) {
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
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const sheet = useRef<HTMLElement>(null)

  const marks = (view?.marks ?? []).filter((mark) => mark.shownOn.head !== undefined)
  const marksKey = marks.map((m) => m.id).join('|')
  useLayoutEffect(() => {
    const box = sheet.current
    if (!box) return
    const next = new Map<string, number>()
    for (const mark of marks) {
      const row =
        box.querySelector<HTMLElement>(`[data-start="${mark.start}"]`) ??
        box.querySelector<HTMLElement>(`[data-part="${mark.shownOn.head}"]`)
      if (row) next.set(mark.id, row.getBoundingClientRect().top - box.getBoundingClientRect().top)
    }
    setAnchors(next)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that moves a mark
  }, [marksKey, head])

  const type = (key: string, value: string, label: string) =>
    session.type(page, `edit:${key}`, { value } satisfies Edit, label)
  const decide = (key: string, edit: Edit | undefined, label: string) =>
    void session.decide(label, [{ page, key: `edit:${key}`, after: edit }])
  const editOf = (key: string) => decisions[`edit:${key}`] as Edit | undefined
  const look = { onFocusPlace: setAt }

  if (!head) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>

  const viewport = head.metas.find((m) => m.name === 'viewport' && m.inHead)
  const robots =
    editOf('meta:robots')
      ?.value?.split(',')
      .map((d) => d.trim().toLowerCase())
      .filter(Boolean) ?? (editOf('meta:robots')?.remove ? [] : head.robots)
  const robotsMeta = head.metas.find((m) => m.name === 'robots' && m.inHead)
  const known = new Set(directives.map(([d]) => d))
  const setRobots = (list: string[]) =>
    // At once in memory, as typing is: a box that waits for the store would seem not to take the click.
    session.type(
      page,
      'edit:meta:robots',
      list.length > 0 ? { value: list.join(', ') } : { remove: true },
      'Robots',
    )
  const otherMetas = head.metas.filter(
    (m) => m.name !== 'viewport' && m.name !== 'robots' && m.name !== 'description',
  )

  return (
    <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <section
        ref={sheet}
        className="sheet min-w-0 px-7 py-5 max-[700px]:px-4"
        aria-label="Head"
        data-testid="head"
      >
        <Part name="page" title="The page">
          <Row label="Language" hint={head.lang ?? 'none'}>
            <TypedLine
              label="Language"
              value={editOf('lang')?.value ?? head.lang ?? ''}
              placeholder="en, en-GB, da …"
              wrong={(v) =>
                v !== '' && !languagePattern.test(v)
                  ? 'A language tag such as en or en-GB is expected.'
                  : null
              }
              onType={(v) => type('lang', v.trim(), 'Language')}
            />
          </Row>
          <Row label="Encoding">
            <span>
              {head.encoding.name}
              {head.encoding.declared ? ', declared' : ', not declared'}
            </span>
            {!head.encoding.declared && view?.marks.some((m) => m.rule === 'shell-charset' && m.repair) && (
              <button
                type="button"
                className="action"
                onClick={() => decide('charset', { value: 'utf-8' }, 'Declare UTF-8')}
              >
                Declare UTF-8
              </button>
            )}
          </Row>
          <Row label="Doctype">
            <span>{head.doctype ? 'present' : 'missing'}</span>
            {!head.doctype && (
              <button
                type="button"
                className="action"
                onClick={() => decide('doctype', { value: 'html' }, 'Doctype')}
              >
                Add the doctype
              </button>
            )}
          </Row>
          <Row label="Small screens" start={viewport?.start} {...look}>
            <TypedLine
              label="Viewport"
              value={(viewport?.key && editOf(viewport.key)?.value) ?? viewport?.content ?? ''}
              placeholder="width=device-width, initial-scale=1"
              onType={(v) => type(viewport?.key ?? 'meta:viewport', v, 'Viewport')}
            />
          </Row>
        </Part>

        <Part name="robots" title="Robots: what search engines may do">
          <fieldset onFocus={() => robotsMeta && setAt(robotsMeta.start)}>
            <legend className="sr-only">Robots directives</legend>
            {directives.map(([directive, does]) => (
              <label key={directive} className="flex items-baseline gap-2.5 py-0.5">
                <input
                  type="checkbox"
                  checked={robots.includes(directive)}
                  onChange={(e) =>
                    setRobots(
                      e.target.checked ? [...robots, directive] : robots.filter((d) => d !== directive),
                    )
                  }
                />
                <code className="w-28 font-mono text-[12.5px]">{directive}</code>
                <span className="text-[13px] text-ink-2">{does}</span>
              </label>
            ))}
          </fieldset>
          {robots.some((d) => !known.has(d)) && (
            <p className="mt-1 text-[13px] text-ink-2">
              Also present:{' '}
              {robots
                .filter((d) => !known.has(d))
                .map((d) => (
                  <span key={d} className="mr-3">
                    <code className="font-mono text-[12.5px]">{d}</code>{' '}
                    <button
                      type="button"
                      className="quiet"
                      onClick={() => setRobots(robots.filter((x) => x !== d))}
                    >
                      Remove
                    </button>
                  </span>
                ))}
            </p>
          )}
          {robots.length === 0 && <p className="mt-1 text-[13px] text-ink-3">No restrictions.</p>}
        </Part>

        <Part name="metas" title="Other metas" count={otherMetas.length}>
          {otherMetas.map((m, i) => (
            <Row
              key={rowKey(m, i)}
              label={m.name}
              start={m.start}
              {...look}
              mono
              note={m.inHead ? '' : 'in the body'}
            >
              {m.key === null ? (
                <span className="min-w-0 truncate">{m.content}</span>
              ) : (
                <TypedLine
                  label={`Content of ${m.name}`}
                  value={editOf(m.key)?.value ?? m.content}
                  onType={(v) => type(m.key!, v, `Meta ${m.name}`)}
                />
              )}
              {m.key !== null && (
                <button
                  type="button"
                  className="quiet"
                  onClick={() => decide(m.key!, { remove: true }, `Meta ${m.name} removed`)}
                >
                  Remove
                </button>
              )}
            </Row>
          ))}
          <AddMeta onAdd={(name, content) => decide(`meta:${name}`, { value: content }, `Meta ${name}`)} />
        </Part>

        <Part name="links" title="Links of the head" count={head.links.length}>
          {head.links.map((l, i) => (
            <Row
              key={rowKey(l, i)}
              label={l.rel || 'link'}
              start={l.start}
              {...look}
              mono
              note={l.inHead ? '' : 'in the body'}
            >
              {l.key === null || l.key.startsWith('new:') ? (
                <span className="min-w-0 truncate">{l.href}</span>
              ) : (
                <>
                  <TypedLine
                    label={`Address of ${l.rel}`}
                    value={editOf(l.key)?.value ?? l.href}
                    onType={(v) => type(l.key!, v, `Link ${l.rel}`)}
                  />
                  <button
                    type="button"
                    className="quiet"
                    onClick={() => decide(l.key!, { remove: true }, `Link ${l.rel} removed`)}
                  >
                    Remove
                  </button>
                </>
              )}
            </Row>
          ))}
          {!head.links.some((l) => l.rel === 'canonical') && (
            <Row label="canonical" mono>
              <TypedLine
                label="Canonical"
                value={editOf('canonical')?.value ?? ''}
                placeholder={view?.url ?? ''}
                onType={(v) =>
                  v.trim() === ''
                    ? decide('canonical', undefined, 'Canonical')
                    : type('canonical', v.trim(), 'Canonical')
                }
              />
            </Row>
          )}
        </Part>

        <Part name="code" title="Extra code for this page’s head">
          <ExtraCode
            added={Object.entries(decisions).flatMap(([k, v]) =>
              k.startsWith('edit:new:') ? [{ key: k.slice(5), value: (v as Edit).value ?? '' }] : [],
            )}
            onType={(key, value) =>
              value === '' ? decide(key, undefined, 'Extra code removed') : type(key, value, 'Extra code')
            }
          />
        </Part>

        <Part name="landmarks" title="Landmarks" count={head.landmarks.length}>
          {head.landmarks.length === 0 && (
            <p className="text-[13px] text-ink-2">
              None. People who use screen readers jump between header, nav, main, aside and footer.
            </p>
          )}
          <ul>
            {head.landmarks.map((l) => (
              <li key={l.start} data-start={l.start} className="flex items-baseline gap-3 py-0.5">
                <span className="w-28 font-serif italic">{landmarkNames[l.landmark]}</span>
                <span className="min-w-0 flex-1 truncate text-[13px] text-ink-2">
                  {l.label}
                  {l.hidden && ' hidden'}
                </span>
                <LineButton line={l.line} onClick={() => setAt(l.start)} />
              </li>
            ))}
          </ul>
          <p className="mt-1 text-[13px] text-ink-2">
            {editOf('skip')
              ? 'A skip link has been added.'
              : head.skipLink
                ? 'The page has a skip link.'
                : 'The page has no skip link.'}{' '}
            {editOf('skip') ? (
              <button
                type="button"
                className="quiet"
                onClick={() => decide('skip', undefined, 'Skip link removed')}
              >
                Remove
              </button>
            ) : (
              !head.skipLink && (
                <button
                  type="button"
                  className="action"
                  onClick={() => decide('skip', { value: 'Skip to main content' }, 'Skip link')}
                >
                  Add one
                </button>
              )
            )}
          </p>
          <MainFound session={session} by={head.mainBy} words={head.mainWords} />
        </Part>

        <Part name="images" title="Pictures" count={head.images.length}>
          <HeadImages
            images={head.images}
            valueOf={(key) => editOf(key)?.value}
            onType={(key, value) => type(key, value, 'Alternative text')}
            onLook={setAt}
          />
        </Part>

        <Part
          name="broken"
          title="Ids, comments, broken markup"
          count={head.repeatedIds.length + head.comments.length + head.errors.length}
        >
          {head.repeatedIds.map((i, at) => (
            <Row key={rowKey(i, at)} label={`id, ${i.count} times`} start={i.start} {...look}>
              <TypedLine
                label={`Id ${i.id}, line ${i.line}`}
                value={(i.key && editOf(i.key)?.value) ?? i.id}
                wrong={(v) => (/\s/.test(v) || v === '' ? 'An id has no spaces and is not empty.' : null)}
                onType={(v) => i.key && type(i.key, v, 'Id')}
              />
              <LineButton line={i.line} onClick={() => setAt(i.start)} />
            </Row>
          ))}
          <ul>
            {head.comments.slice(0, 100).map((c, i) => (
              <li key={rowKey(c, i)} data-start={c.start} className="flex items-baseline gap-3 py-0.5">
                <span className="w-28 text-[13px] text-ink-2">comment</span>
                <span className="min-w-0 flex-1 truncate text-[13px]" title={c.text}>
                  {c.text} {c.what && <em className="text-ink-2">({c.what})</em>}
                </span>
                {c.key && (
                  <button
                    type="button"
                    className="quiet text-[13px]"
                    onClick={() => decide(c.key!, { remove: true }, 'Comment removed')}
                  >
                    Remove
                  </button>
                )}
                <LineButton line={c.line} onClick={() => setAt(c.start)} />
              </li>
            ))}
            {head.errors.slice(0, 100).map((e, i) => (
              <li key={`e${i}`} data-start={e.start} className="flex items-baseline gap-3 py-0.5">
                <span className="w-28 text-[13px] text-ink-2">broken</span>
                <span className="min-w-0 flex-1 truncate text-[13px]">{e.code.replace(/-/g, ' ')}</span>
                <LineButton line={e.line} onClick={() => setAt(e.start)} />
              </li>
            ))}
          </ul>
          {head.errors.length > 100 && (
            <p className="text-[13px] text-ink-2">and {head.errors.length - 100} more</p>
          )}
          {head.repeatedIds.length + head.comments.length + head.errors.length === 0 && (
            <p className="text-[13px] text-ink-2">
              Every id is unique, no comments are left over, and nothing is broken.
            </p>
          )}
        </Part>
        <Refused edits={view?.refused ?? []} />
      </section>

      <div className="flex min-w-0 flex-col">
        <Margin
          page={page}
          marks={marks}
          anchors={anchors}
          session={session}
          onGoTo={(mark) => setAt(mark.start)}
          clean="Nothing to mend in the head and the page’s structure."
        />
        {at !== null && excerpt && (
          <SourceExcerpt excerpt={excerpt} below={below} onClose={() => setAt(null)} />
        )}
      </div>
    </div>
  )
}
