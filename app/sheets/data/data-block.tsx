import { toast } from 'sonner'
import { safeJson } from '../../../core/json/edit-json.ts'
import { asLabel } from '../../../core/structured-data/words.ts'
import { download } from '../../ui/download.ts'
import type { ThingView } from '../../workers/data-fields.ts'
import type { BlockView, FeatureView } from '../../workers/data.ts'
import { additionNames } from './data-words.ts'

/** One thing with its name, and its fields under it. */
export function OneThing({
  thing,
  as: Heading = 'h2',
  children,
}: {
  thing: ThingView
  as?: 'h2' | 'h3'
  children: React.ReactNode
}) {
  return (
    <article className="py-1">
      <Heading className="font-serif text-[17px]">
        {thing.types.map(asLabel).join(', ') || 'A thing without a type'}
        {thing.name && <span className="text-ink-2 italic"> {thing.name}</span>}
      </Heading>
      {thing.id && (
        <p className="truncate text-[12px] text-ink-3" title={thing.id}>
          Identifier (@id) {thing.id}
        </p>
      )}
      {children}
    </article>
  )
}

/** One block of the page's data: where it stands, what can be done with it, and what results can make of it. */
export function Block({
  block,
  json,
  onJson,
  onTakeOut,
  onResult,
  children,
}: {
  block: BlockView
  json: boolean
  onJson(): void
  onTakeOut(): void
  onResult(): void
  children: React.ReactNode
}) {
  const script = () => `<script type="application/ld+json">\n${safeJson(block.json.trim())}\n</script>`
  return (
    <section
      data-block={block.key}
      data-testid="block"
      className="border-t border-rule-2 py-3 first:border-t-0 first:pt-0"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-[13px]">
        <span className="text-ink-3">
          Line {block.line}
          {block.built && ', filled from the page'}
        </span>
        <span className="ml-auto flex gap-4">
          <button type="button" className="quiet" aria-pressed={json} onClick={onJson}>
            {json ? 'Hide JSON' : 'JSON'}
          </button>
          <button
            type="button"
            className="quiet"
            title="As a script element, to be pasted into a page"
            onClick={() =>
              void navigator.clipboard.writeText(script()).then(() => toast('Copied as a script element.'))
            }
          >
            Copy
          </button>
          <button
            type="button"
            className="quiet"
            onClick={() =>
              download(
                `${block.things[0]?.types[0]?.toLowerCase() ?? 'data'}.jsonld`,
                new TextEncoder().encode(block.json.trim() + '\n'),
                'application/ld+json',
              )
            }
          >
            Download
          </button>
          <button type="button" className="quiet" onClick={onTakeOut}>
            Remove
          </button>
        </span>
      </div>
      {block.error && (
        <p className="mt-1">
          <span className="text-carmine">Search engines cannot read this block:</span> {block.error.message}{' '}
          (line {block.error.line}, column {block.error.column}).{' '}
          {!json && (
            <button type="button" className="action" onClick={onJson}>
              Mend it in the JSON
            </button>
          )}
        </p>
      )}
      {block.foreign && (
        <p className="mt-1 text-ink-2">It uses a vocabulary other than schema.org and is left unchanged.</p>
      )}
      {block.features.map((f) => (
        <Feature key={f.id + f.pointer} feature={f} onResult={onResult} />
      ))}
      {children}
    </section>
  )
}

function Feature({ feature, onResult }: { feature: FeatureView; onResult(): void }) {
  const { name, eligible, missing, adds, retired } = feature
  const gone = retired !== null && !eligible && missing.length === 0
  return (
    <p className="mt-0.5 text-[13px] text-ink-2" data-feature={feature.id} data-eligible={eligible}>
      <strong className="font-semibold text-ink">{name}:</strong>{' '}
      {gone
        ? retired
        : eligible
          ? `results can use it${adds.length > 0 ? `; it may add ${adds.map((a) => additionNames[a]).join(', ')}` : ''}. ${retired ?? ''}`
          : `results cannot use it yet. Missing: ${missing.join('; ')}. ${retired ?? ''}`}{' '}
      {eligible && adds.length > 0 && (
        <button type="button" className="quiet" onClick={onResult}>
          See it in the result
        </button>
      )}
    </p>
  )
}
