/** What can be said of a thing besides: properties that are asked for, things to point to, anything else by search. */
import { useRef, useState } from 'react'
import { asLabel, inWords } from '../../../core/structured-data/words.ts'
import { core } from '../../workers/client.ts'
import type { FieldKind, ThingView, ValueView } from '../../workers/data-fields.ts'
import type { SiteThingView } from '../../workers/data.ts'
import type { PropertyChoice } from '../../workers/data-search.ts'
import type { BlockEditor } from './data-edits.ts'
import { ValueField, type Suggestions } from './data-field.tsx'

export interface ThingSurroundings {
  /** null: shown, not edited. */
  editor: BlockEditor | null
  /** Begins every `data-pointer`, so that blocks keep apart. */
  block: string
  suggestions: Suggestions
  siteThings: readonly SiteThingView[]
  onLook(start: number): void
}

/** A literal as it is put into JSON: a number or true and false stay what they are. */
export const asJson = (
  text: string,
  kind: ValueView['json'] | 'new',
  control: FieldKind['control'],
): unknown => {
  if (kind === 'boolean' || (kind === 'new' && control === 'yes-no'))
    return text === 'true' ? true : text === 'false' ? false : text
  if (kind === 'number' && text.trim() !== '' && Number.isFinite(Number(text))) return Number(text)
  return text
}

/** A property’s name in words; what schema.org says of it comes with the pointer. */
export function Name({ name, needed, or = [] }: { name: string; needed?: boolean; or?: string[] }) {
  const [says, setSays] = useState<string | undefined>(undefined)
  return (
    <span
      className="w-[124px] shrink-0 text-[13px] leading-[22px] text-ink-2"
      title={says ?? name}
      onMouseEnter={() =>
        says === undefined &&
        void core()
          .describeTerm(name)
          .then((d) => setSays(d ? `${name}: ${d}` : name))
      }
    >
      {asLabel(name)}
      {needed && (
        <span className="block text-[12px] leading-4 text-carmine">
          needed for results{or.length > 0 && `, or ${or.map((o) => inWords(o)).join(', ')}`}
        </span>
      )}
    </span>
  )
}

/** A choice of what a thing under a property is to be: a new one of a class, or one that the site describes. */
export function AddThing({
  kind,
  around,
  label,
  named,
  onAdd,
}: {
  kind: FieldKind
  around: ThingSurroundings
  label: string
  named?: string
  onAdd(value: unknown): void
}) {
  const known = around.siteThings.slice(0, 40)
  return (
    <select
      aria-label={label}
      className="max-w-36 border-b border-rule bg-transparent text-[12px] text-ink-2"
      value=""
      onChange={(e) => {
        const [how, what] = [e.target.value.slice(0, 1), e.target.value.slice(1)]
        if (what !== '')
          onAdd(how === '#' ? { '@id': what } : { '@type': what, ...(named ? { name: named } : {}) })
      }}
    >
      <option value="">{named === undefined ? 'add …' : 'make it …'}</option>
      <optgroup label="New">
        {kind.things.slice(0, 12).map((t) => (
          <option key={t} value={`+${t}`}>
            {asLabel(t)}
          </option>
        ))}
      </optgroup>
      {known.length > 0 && (
        <optgroup label="Described on this site">
          {known.map((t) => (
            <option key={t.id} value={`#${t.id}`}>
              {t.name} ({t.types.map(asLabel).join(', ')})
            </option>
          ))}
        </optgroup>
      )}
    </select>
  )
}

/** A property that is asked for and not there: an empty field, which gives it to the thing once something is typed. */
export function OpenField({
  thing,
  kind,
  around,
  needed,
}: {
  thing: ThingView
  kind: FieldKind & { or?: string[] }
  around: ThingSurroundings
  needed?: boolean
}) {
  const editor = around.editor!
  const [begun, setBegun] = useState('')
  const put = () => {
    if (begun.trim() === '') return
    editor.add(thing.pointer, kind.name, asJson(begun, 'new', kind.control))
    editor.rest()
    setBegun('')
  }
  const instant = ['choice', 'yes-no', 'date', 'duration'].includes(kind.control)
  return (
    <div className="flex items-start gap-3 py-1 text-[13.5px]" data-open={kind.name}>
      <Name name={kind.name} needed={needed} or={kind.or} />
      {kind.control !== 'thing' && (
        <form
          className="flex min-w-0 flex-1 items-baseline gap-3"
          onSubmit={(e) => {
            e.preventDefault()
            put()
          }}
        >
          <ValueField
            label={asLabel(kind.name)}
            control={kind.control}
            value={begun}
            choices={kind.choices}
            textWillDo={kind.text}
            suggestions={around.suggestions}
            onType={(text) => {
              setBegun(text)
              // A choice is made; a line is typed to its end first.
              if (instant && text !== '' && kind.control !== 'duration' && kind.control !== 'date') {
                editor.add(thing.pointer, kind.name, asJson(text, 'new', kind.control))
                editor.rest()
              }
            }}
            onRest={put}
          />
        </form>
      )}
      {kind.things.length > 0 && (
        <AddThing
          kind={kind}
          around={around}
          label={`Add ${inWords(kind.name)}`}
          onAdd={(v) => {
            editor.add(thing.pointer, kind.name, v)
            editor.rest()
          }}
        />
      )}
    </div>
  )
}

/** What results can use besides, as words to be opened one by one: a thing has dozens. */
export function Useful({
  thing,
  kinds,
  around,
}: {
  thing: ThingView
  kinds: FieldKind[]
  around: ThingSurroundings
}) {
  const [open, setOpen] = useState<readonly string[]>([])
  const closed = kinds.filter((k) => !open.includes(k.name))
  return (
    <>
      {kinds
        .filter((k) => open.includes(k.name))
        .map((kind) => (
          <OpenField key={kind.name} thing={thing} kind={kind} around={around} />
        ))}
      {closed.length > 0 && (
        <p className="py-1 text-[13px] text-ink-2">
          Results can also use:{' '}
          {closed.map((k, i) => (
            <span key={k.name}>
              {i > 0 && ', '}
              <button type="button" className="quiet" onClick={() => setOpen([...open, k.name])}>
                {inWords(k.name)}
              </button>
            </span>
          ))}
          .
        </p>
      )}
    </>
  )
}

/** Any other property of the type, found by its name or by what schema.org says of it. */
export function AddProperty({
  thing,
  around,
  small,
}: {
  thing: ThingView
  around: ThingSurroundings
  small: boolean
}) {
  const [words, setWords] = useState<string | null>(null)
  const [found, setFound] = useState<PropertyChoice[]>([])
  const asked = useRef(0)
  const [picked, setPicked] = useState<PropertyChoice | null>(null)
  const used = new Set(thing.fields.map((f) => f.name))
  const search = (text: string) => {
    setWords(text)
    const question = ++asked.current
    void core()
      .searchProperties(thing.types, text)
      .then((list) => question === asked.current && setFound(list))
  }
  if (picked && !used.has(picked.name)) return <OpenField thing={thing} kind={picked} around={around} />
  if (words === null)
    return (
      <p className={small ? 'text-[12px]' : 'py-1 text-[13px]'}>
        <button
          type="button"
          className="quiet"
          aria-label={
            small ? `Add a property … to ${thing.name ?? thing.types.map(asLabel).join(', ')}` : undefined
          }
          onClick={() => search('')}
        >
          {small ? 'Add a property …' : 'Add another property …'}
        </button>
      </p>
    )
  return (
    <div className="py-1">
      <input
        autoFocus
        aria-label={`Find a property of ${thing.types.map(asLabel).join(', ')}`}
        placeholder="find a property: colour, phone, length …"
        className="w-full border-b border-sign bg-transparent text-[13px]"
        value={words}
        onChange={(e) => search(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setWords(null)
        }}
      />
      <ul className="mt-1 max-h-44 overflow-auto" data-testid="properties">
        {found
          .filter((p) => !used.has(p.name))
          .map((p) => (
            <li key={p.name}>
              <button
                type="button"
                className="block w-full py-0.5 text-left text-[13px] hover:bg-quill-soft"
                onClick={() => {
                  setPicked(p)
                  setWords(null)
                }}
              >
                <span className="font-semibold">{asLabel(p.name)}</span>{' '}
                <span className="text-[12px] text-ink-2">
                  {p.description.length > 110 ? p.description.slice(0, 110) + '…' : p.description}
                </span>
              </button>
            </li>
          ))}
        {found.length === 0 && (
          <li className="text-[13px] text-ink-2">This type has no such property in schema.org.</li>
        )}
      </ul>
    </div>
  )
}
