import { useEffect, useState } from 'react'
import { useSearchParams } from 'react-router'
import { describeRule, type Suggestion, type TemplateRule } from '../../core/headings/template-rules.ts'
import type { Landmark } from '../../core/page/read/facts.ts'
import { TemplatePreviewPart } from '../templates/preview.tsx'
import type { Session } from '../session/session.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'

export const meta = () => [{ title: 'Repeated headings · Keen Quill' }]

const newRule = (rule: Suggestion['rule']): TemplateRule => ({ ...rule, id: crypto.randomUUID(), except: [] })
const landmarks: Landmark[] = ['header', 'nav', 'main', 'aside', 'footer', 'search']

/** A rule from the outline's "on other pages too". */
function ruleFrom(search: URLSearchParams): TemplateRule | null {
  const tag = search.get('tag')
  if (!tag || !/^(?:h[1-6]|p|div)$/.test(tag)) return null
  const landmark = landmarks.find((l) => l === search.get('landmark')) ?? null
  const furniture = landmark !== null && landmark !== 'main'
  return newRule({
    tag,
    className: search.get('class'),
    landmark,
    become: furniture ? 'p' : /^h/.test(tag) ? Number(tag[1]) : 2,
  })
}

/** Keeps the site's rules; one step of the log. */
const keep = (session: Session, label: string, make: (rules: TemplateRule[]) => TemplateRule[]) =>
  void session.decide(label, () => {
    const after = make(session.get().templates)
    return [{ page: '', key: 'templates', after: after.length > 0 ? after : undefined }]
  })

export default function Templates() {
  const session = useSession()
  const { templates, rows, site } = useSessionState(session)
  const [search] = useSearchParams()
  const [suggestions, setSuggestions] = useState<Suggestion[] | null>(null)
  const [reach, setReach] = useState<Record<string, number>>({})
  const [open, setOpen] = useState<TemplateRule | null>(() => ruleFrom(search))

  useEffect(() => {
    let stale = false
    void Promise.all([core().templateSuggestions(), core().templateReach()]).then(([found, counts]) => {
      if (stale) return
      setSuggestions(found)
      setReach(counts)
    })
    return () => {
      stale = true
    }
  }, [templates, rows])

  return (
    <main className="mx-auto max-w-[1100px] px-6 py-6">
      <h1 className="font-serif text-[26px]">Repeated headings</h1>
      <p className="mt-1 max-w-2xl text-ink-2">
        Pages built from one template repeat the same mistake. A rule mends it on all of them, is kept with
        the site, and applies to pages taken in later. Classes stay, so the look stays wherever it depends on
        the class.
      </p>

      {templates.length > 0 && (
        <section className="mt-6" aria-labelledby="kept">
          <h2 id="kept" className="font-serif text-[19px]">
            Rules kept with {site.name}
          </h2>
          <ul className="mt-1">
            {templates.map((rule) => {
              const { what, become } = describeRule(rule)
              return (
                <li
                  key={rule.id}
                  data-testid="kept-rule"
                  className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-t border-rule-2 py-2"
                >
                  <span className="font-serif text-[16px]">
                    {what} become {become}
                  </span>
                  <span className="text-[13px] text-ink-2">
                    {reach[rule.id] === undefined ? '' : `on ${plural(reach[rule.id]!, 'page')}`}
                    {rule.except.length > 0 && `, ${rule.except.length} left as they are`}
                  </span>
                  <span className="ml-auto flex gap-4 text-[13px]">
                    <button type="button" className="quiet" onClick={() => setOpen(rule)}>
                      Look at its pages
                    </button>
                    <button
                      type="button"
                      className="quiet"
                      onClick={() => {
                        if (open?.id === rule.id) setOpen(null)
                        keep(session, `Rule removed: ${what}`, (now) => now.filter((r) => r.id !== rule.id))
                      }}
                    >
                      Remove
                    </button>
                  </span>
                </li>
              )
            })}
          </ul>
        </section>
      )}

      <section className="mt-6" aria-labelledby="suggested">
        <h2 id="suggested" className="font-serif text-[19px]">
          Repeated on this site
        </h2>
        {suggestions === null && <p className="mt-1 text-ink-2">Reading {rows.size} pages …</p>}
        {suggestions?.length === 0 && (
          <p className="mt-1 font-serif text-[15px] text-ink-2 italic">
            Nothing repeated on three or more pages needs a rule. You can start one from a heading on the
            Outline sheet: “On other pages too”.
          </p>
        )}
        <ul className="mt-1">
          {suggestions?.map((s) => {
            const { what, become } = describeRule(s.rule)
            return (
              <li
                key={what + become}
                data-testid="suggestion"
                className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-t border-rule-2 py-2"
              >
                <span className="font-serif text-[16px]">
                  {what} become {become}
                </span>
                <span className="text-[13px] text-ink-2">
                  on {plural(s.pages, 'page')}: {s.samples.map((t) => `“${t}”`).join(', ')}
                </span>
                <button
                  type="button"
                  className="action ml-auto text-[13px]"
                  onClick={() => setOpen(newRule(s.rule))}
                >
                  See what it would change
                </button>
              </li>
            )
          })}
        </ul>
      </section>

      {open && (
        <TemplatePreviewPart
          key={open.id}
          rule={open}
          kept={templates.some((r) => r.id === open.id)}
          onChange={setOpen}
          onClose={() => setOpen(null)}
          onKeep={(rule) => {
            const { what, become } = describeRule(rule)
            keep(session, `${what} become ${become}`, (now) =>
              now.some((r) => r.id === rule.id)
                ? now.map((r) => (r.id === rule.id ? rule : r))
                : [...now, rule],
            )
            setOpen(null)
          }}
        />
      )}
    </main>
  )
}
