import type { Decisions } from '../../../core/work/decisions.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { Session } from '../../session/session.ts'
import { core } from '../../workers/client.ts'
import type { PageView } from '../../workers/page-view.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import { OneThing } from './data-block.tsx'
import { ThingFields } from './data-thing.tsx'

/** What the page's own markup describes (microdata, RDFa): read only, and to be written anew as JSON-LD. */
export function InMarkUp({
  page,
  session,
  decisions,
  view,
}: {
  page: string
  session: Session
  decisions: Decisions
  view: PageView | null
}) {
  const things = useAnswer(
    () =>
      core()
        .inlineData(page, session.decisionsOf(page))
        .then(
          (all) => all ?? ('unread' as const),
          () => 'unread' as const,
        ),
    [page, session, view],
  )
  if (things === null)
    return <p className="border-t border-rule-2 py-3 text-ink-2">Reading what the markup describes …</p>
  if (things === 'unread')
    return (
      <p className="border-t border-rule-2 py-3 text-ink-2">
        The markup describes something (itemscope or typeof) that could not be read.
      </p>
    )
  const all = [...things.microdata, ...things.rdfa]
  const written = 'edit:data:markup' in decisions
  return (
    <section
      className="border-t border-rule-2 py-3"
      data-testid="in-markup"
      aria-label="In the page’s markup"
    >
      <div className="flex items-baseline gap-4">
        <h2 className="font-serif text-[17px]">In the page’s markup</h2>
        {all.length > 0 && !written && (
          <button
            type="button"
            className="action ml-auto text-[13px]"
            onClick={() =>
              void session.decide('Markup rewritten as JSON-LD', [
                { page, key: 'edit:data:markup', after: { value: things.json } satisfies Edit },
              ])
            }
          >
            Rewrite as JSON-LD
          </button>
        )}
      </div>
      <p className="text-[13px] text-ink-2">
        {all.length === 0
          ? 'The markup describes nothing from schema.org.'
          : `Described in the page’s own markup, as ${things.microdata.length > 0 ? (things.rdfa.length > 0 ? 'microdata and RDFa' : 'microdata') : 'RDFa'}; you can read it here and change it in the source.${written ? ' It is rewritten as JSON-LD above; remove it from the markup in your templates, or the page says it twice.' : ''}`}
      </p>
      {all.map((thing, i) => (
        <OneThing key={i} thing={thing} as="h3">
          <ThingFields
            thing={thing}
            depth={0}
            around={{
              editor: null,
              block: `markup-${i}`,
              suggestions: { images: [], addresses: [], currencies: [] },
              siteThings: [],
              onLook: () => {},
            }}
          />
        </OneThing>
      ))}
    </section>
  )
}
