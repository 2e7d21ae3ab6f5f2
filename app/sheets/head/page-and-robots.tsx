import { languagePattern } from '../../../core/words/language.ts'
import { TypedLine } from '../../ui/typed-line.tsx'
import type { HeadAround } from './head-around.ts'
import { Part, Row } from './head-parts.tsx'

/** Language, encoding, doctype, and how the page fits small screens. */
export function PagePart(around: HeadAround) {
  const { head, view, editOf, type, decide, show } = around
  const viewport = head.metas.find((m) => m.name === 'viewport' && m.inHead)
  return (
    <Part name="page" title="The page">
      <Row label="Language" hint={head.lang ?? 'none'}>
        <TypedLine
          label="Language"
          value={editOf('lang')?.value ?? head.lang ?? ''}
          placeholder="en, en-GB, da …"
          wrong={(v) =>
            v !== '' && !languagePattern.test(v) ? 'A language tag such as en or en-GB is expected.' : null
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
      <Row label="Small screens" start={viewport?.start} onFocusPlace={show}>
        <TypedLine
          label="Viewport"
          value={(viewport?.key && editOf(viewport.key)?.value) ?? viewport?.content ?? ''}
          placeholder="width=device-width, initial-scale=1"
          onType={(v) => type(viewport?.key ?? 'meta:viewport', v, 'Viewport')}
        />
      </Row>
    </Part>
  )
}

/** Directives as an editor chooses them, and what each does; from memory, as engines document them. */
const directives: [string, string][] = [
  ['noindex', 'The page is not shown in results.'],
  ['nofollow', 'Its links are not followed.'],
  ['nosnippet', 'Results show no description or passage under its title.'],
  ['noarchive', 'Results offer no cached copy of it.'],
  ['noimageindex', 'Its pictures are not shown in results.'],
  ['notranslate', 'Results offer no translation of it.'],
]

/** What search engines may do with the page. */
export function RobotsPart(around: HeadAround) {
  const { head, session, view, editOf, show } = around
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
      view!.id,
      'edit:meta:robots',
      list.length > 0 ? { value: list.join(', ') } : { remove: true },
      'Robots',
    )
  return (
    <Part name="robots" title="Robots: what search engines may do">
      <fieldset onFocus={() => robotsMeta && show(robotsMeta.start)}>
        <legend className="sr-only">Robots directives</legend>
        {directives.map(([directive, does]) => (
          <label key={directive} className="flex items-baseline gap-2.5 py-0.5">
            <input
              type="checkbox"
              checked={robots.includes(directive)}
              onChange={(e) =>
                setRobots(e.target.checked ? [...robots, directive] : robots.filter((d) => d !== directive))
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
  )
}
