import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { useForm } from 'react-hook-form'
import { useRef, useState } from 'react'
import { plural } from '../../ui/plural.ts'
import { core } from '../../workers/client.ts'
import type { Excerpt } from '../../workers/structure.ts'

export type PartName =
  'served' | 'page' | 'robots' | 'metas' | 'links' | 'code' | 'landmarks' | 'images' | 'broken'
/**
 * What a row is told by: the byte in the source, which stays while the place in the proof moves with what is typed before
 * it, so that no field loses the focus. Several things that one edit put in share its key and go by their order.
 */
export const rowKey = (thing: { key: string | null }, index: number): string =>
  thing.key !== null && thing.key.includes('@') ? thing.key : `row ${index}`

/** The source around a place, the place marked. */
export function SourceExcerpt({
  excerpt,
  below,
  onClose,
}: {
  excerpt: Excerpt
  /** At the window's foot; else at its head. */
  below: boolean
  onClose(): void
}) {
  const source = (
    <aside
      aria-label="Source of the selected place"
      data-testid="excerpt"
      className={`sheet max-h-[300px] overflow-auto p-3 ${below ? 'sticky bottom-3 z-10 mt-auto' : ''}`}
    >
      <div className="flex items-baseline justify-between">
        <h2 className="font-serif text-[15px]">Source, line {excerpt.first + excerpt.at}</h2>
        <button type="button" className="quiet text-[12px]" onClick={onClose}>
          Close
        </button>
      </div>
      <ol className="mt-1 font-mono text-[12px] leading-5">
        {excerpt.lines.map((l, i) => (
          <li key={i} className={`flex gap-2 ${i === excerpt.at ? 'bg-quill-soft' : ''}`}>
            <span className="w-8 shrink-0 text-right text-ink-3 select-none">{excerpt.first + i}</span>
            <span className="min-w-0 break-all whitespace-pre-wrap">
              {i === excerpt.at ? (
                <>
                  {l.slice(0, excerpt.from)}
                  <mark className="cm-marked text-ink">{l.slice(excerpt.from, excerpt.to)}</mark>
                  {l.slice(excerpt.to)}
                </>
              ) : (
                l
              )}
            </span>
          </li>
        ))}
      </ol>
    </aside>
  )
  // Of no height, so that the margin stays level with the sheet.
  return below ? source : <div className="sticky top-[64px] z-10 order-first h-0">{source}</div>
}

export function Part({
  name,
  title,
  count,
  children,
}: {
  name: PartName
  title: string
  count?: number
  children: React.ReactNode
}) {
  return (
    <section
      data-part={name}
      className="border-t border-rule-2 py-3 first:border-t-0 first:pt-0"
      aria-label={title}
    >
      <h2 className="mb-1 font-serif text-[17px]">
        {title}
        {count !== undefined && count > 0 && (
          <span className="ml-2 font-sans text-[13px] text-ink-3">{count}</span>
        )}
      </h2>
      {children}
    </section>
  )
}

export function Row({
  label,
  note,
  hint,
  start,
  mono,
  onFocusPlace,
  children,
}: {
  label: string
  note?: string
  hint?: string
  start?: number
  mono?: boolean
  onFocusPlace?(start: number): void
  children: React.ReactNode
}) {
  return (
    <div
      data-start={start}
      className="flex items-baseline gap-3 py-0.5"
      onFocus={() => start !== undefined && onFocusPlace?.(start)}
      title={hint}
    >
      <span
        className={`w-28 shrink-0 truncate text-ink-2 ${mono ? 'font-mono text-[12px]' : 'text-[13px]'}`}
        title={label}
      >
        {label}
      </span>
      <span className="flex min-w-0 flex-1 items-baseline gap-3 text-[13px]">{children}</span>
      {note && <span className="text-[12px] text-carmine">{note}</span>}
    </div>
  )
}

export const LineButton = ({ line, onClick }: { line: number; onClick(): void }) => (
  <button type="button" className="quiet shrink-0 text-[13px]" onClick={onClick}>
    Line {line}
  </button>
)

const metaSchema = Joi.object<{ name: string; content: string }>({
  name: Joi.string()
    .trim()
    .lowercase()
    .pattern(/^[a-z0-9:._-]+$/i)
    .required()
    .messages({
      'string.empty': 'Give the meta a name.',
      'string.pattern.base': 'Letters, digits, “:”, “.” and “-” only.',
    }),
  content: Joi.string().allow(''),
})

export function AddMeta({ onAdd }: { onAdd(name: string, content: string): void }) {
  const { register, handleSubmit, reset, formState } = useForm({
    resolver: joiResolver(metaSchema),
    defaultValues: { name: '', content: '' },
  })
  const wrong = formState.errors.name
  return (
    <form
      noValidate
      className="mt-1 flex items-baseline gap-3 text-[13px]"
      onSubmit={handleSubmit(({ name, content }) => {
        onAdd(name, content)
        reset()
      })}
    >
      <input
        aria-label="Name of a new meta"
        placeholder="name"
        className="w-28 border-b border-sign bg-transparent font-mono text-[12px]"
        aria-invalid={wrong !== undefined}
        {...register('name')}
      />
      <input
        aria-label="Content of a new meta"
        placeholder="content"
        className="min-w-0 flex-1 border-b border-sign bg-transparent"
        {...register('content')}
      />
      <button type="submit" className="action">
        Add
      </button>
      {wrong && (
        <span role="alert" className="text-carmine">
          {wrong.message}
        </span>
      )}
    </form>
  )
}

export function ExtraCode({
  added,
  onType,
}: {
  added: { key: string; value: string }[]
  onType(key: string, value: string): void
}) {
  const addedCode = added[0] ?? { key: 'new:code', value: '' }
  const [refused, setRefused] = useState<{ text: string; why: string } | null>(null)
  const [typing, setTyping] = useState<string | null>(null)
  const value = refused?.text ?? typing ?? addedCode.value
  const why = refused?.why ?? null
  const asked = useRef(0)
  function typed(text: string) {
    setTyping(text)
    setRefused(null)
    const question = ++asked.current
    void core()
      .whyNotInHead(text)
      .then((found) => {
        if (question !== asked.current) return
        if (found) setRefused({ text, why: found })
        else onType(addedCode.key, text)
      })
  }
  return (
    <>
      <textarea
        aria-label="Extra code for this page’s head"
        spellCheck={false}
        className="field h-20 font-mono text-[12px]"
        placeholder='<link rel="icon" href="/icon.svg">'
        value={value}
        aria-invalid={why !== null}
        aria-describedby="extra-code-why"
        onChange={(e) => typed(e.target.value)}
        onBlur={() => setTyping(null)}
      />
      <p id="extra-code-why" className={`text-[13px] ${why ? 'text-carmine' : 'text-ink-3'}`}>
        {why ??
          (value.trim() === ''
            ? 'Links, metas, scripts and styles, added at the end of the head as typed. Nothing is run here.'
            : `${plural(value.trim().split('\n').length, 'line')} at the end of the head.`)}
      </p>
    </>
  )
}
