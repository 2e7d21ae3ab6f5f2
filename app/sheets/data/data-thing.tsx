import { ArrowDown, ArrowUp, X } from 'lucide-react'
import { memo } from 'react'
import { asLabel, inWords } from '../../../core/structured-data/words.ts'
import type { FieldView, ThingView, ValueView } from '../../workers/data-fields.ts'
import { Sortable, SortableItem } from '../../ui/sortable.tsx'
import { ValueField } from './data-field.tsx'
import {
  AddProperty,
  AddThing,
  asJson,
  Name,
  OpenField,
  Useful,
  type ThingSurroundings,
} from './data-open.tsx'

/** A thing as its fields, the ones that results need first; things within it are set in. */
export const ThingFields = memo(function ThingFields({
  thing,
  depth,
  around,
}: {
  thing: ThingView
  depth: number
  around: ThingSurroundings
}) {
  const rank = (f: FieldView) => (f.asked === 'required' ? 0 : f.asked === 'recommended' ? 1 : 2)
  const fields = [...thing.fields].sort((a, b) => rank(a) - rank(b))
  const needed = thing.missing.filter((m) => m.asked === 'required')
  const begin = thing.begin.filter((b) => !needed.some((m) => m.name === b.name))
  const useful = thing.missing.filter(
    (m) => m.asked === 'recommended' && !begin.some((b) => b.name === m.name),
  )
  const { editor, block } = around
  return (
    <div
      data-pointer={`${block} ${thing.pointer}`}
      className={depth > 0 ? 'border-l-2 border-rule pl-3' : ''}
    >
      {fields.map((field) => (
        <Field key={field.pointer} field={field} depth={depth} around={around} />
      ))}
      {editor &&
        needed.map((kind) => <OpenField key={kind.name} thing={thing} kind={kind} around={around} needed />)}
      {editor && begin.map((kind) => <OpenField key={kind.name} thing={thing} kind={kind} around={around} />)}
      {editor && useful.length > 0 && <Useful thing={thing} kinds={useful} around={around} />}
      {editor && <AddProperty thing={thing} around={around} small={depth > 0} />}
    </div>
  )
})

/** A small button beside a value, large enough to be hit. */
function Sign({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string
  disabled?: boolean
  onClick(): void
  children: React.ReactNode
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      className="inline-flex h-6 w-6 shrink-0 items-center justify-center text-[14px] text-ink-2 hover:text-ink disabled:text-rule"
      onClick={onClick}
    >
      {children}
    </button>
  )
}

const Field = memo(function Field({
  field,
  depth,
  around,
}: {
  field: FieldView
  depth: number
  around: ThingSurroundings
}) {
  const { editor, block } = around
  const { values } = field
  const several = values.length > 1
  const things = values.some((v) => v.thing !== null)
  const words = asLabel(field.name)
  const can = editor !== null && !field.reverse
  const holder = field.pointer.slice(0, field.pointer.lastIndexOf('/'))
  const act = (job: () => void) => () => {
    job()
    editor?.rest()
  }
  const signs = (value: ValueView, i: number) =>
    can && (
      <span className="flex">
        {several && (
          <>
            <Sign
              label={`${words} ${i + 1} up`}
              disabled={i === 0}
              onClick={act(() => editor.move(field.pointer, i, i - 1))}
            >
              <ArrowUp size={14} aria-hidden />
            </Sign>
            <Sign
              label={`${words} ${i + 1} down`}
              disabled={i === values.length - 1}
              onClick={act(() => editor.move(field.pointer, i, i + 1))}
            >
              <ArrowDown size={14} aria-hidden />
            </Sign>
          </>
        )}
        <Sign
          label={several ? `Remove ${words} ${i + 1}` : `Remove ${words}`}
          onClick={act(() => editor.remove(several ? value.pointer : field.pointer))}
        >
          <X size={14} aria-hidden />
        </Sign>
      </span>
    )
  const sorted = can && several
  const itemProps = (value: ValueView, i: number) => ({
    'data-pointer': `${block} ${value.pointer}`,
    className: `flex items-baseline gap-2 ${value.thing && i > 0 ? 'mt-2' : ''}`,
  })
  const shownValue = (value: ValueView, i: number) => (
    <>
      <span className="min-w-0 flex-1">
        <OneValue field={field} value={value} several={several} depth={depth} around={around} />
      </span>
      {signs(value, i)}
    </>
  )
  return (
    <div
      data-pointer={`${block} ${field.pointer}`}
      className={`gap-x-3 py-1 text-[13.5px] ${things ? '' : 'flex items-start'}`}
    >
      {things ? (
        <p className="flex items-baseline gap-3">
          <Name name={field.name} />
          {can && field.things.length > 0 && (
            <AddThing
              kind={field}
              around={around}
              label={`Add another ${words.toLowerCase()}`}
              onAdd={(v) => act(() => editor.add(holder, field.key, v))()}
            />
          )}
        </p>
      ) : (
        <Name name={field.name} />
      )}
      <ol className="min-w-0 flex-1">
        {sorted ? (
          <Sortable
            ids={values.map((v) => v.pointer)}
            onMove={(from, to) => act(() => editor!.move(field.pointer, from, to))()}
          >
            {values.map((value, i) => (
              <SortableItem
                key={value.pointer}
                id={value.pointer}
                label={`Move ${words} ${i + 1}`}
                {...itemProps(value, i)}
              >
                {shownValue(value, i)}
              </SortableItem>
            ))}
          </Sortable>
        ) : (
          values.map((value, i) => (
            <li key={value.pointer} {...itemProps(value, i)}>
              {shownValue(value, i)}
            </li>
          ))
        )}
        {values.length === 0 && (
          <li className="flex items-baseline gap-2">
            <span className="flex-1 text-ink-3 italic">nothing</span>
            {can && (
              <Sign label={`Remove ${words}`} onClick={act(() => editor.remove(field.pointer))}>
                <X size={14} aria-hidden />
              </Sign>
            )}
          </li>
        )}
        {can && several && !things && (
          <li>
            <button
              type="button"
              className="quiet text-[12px]"
              onClick={act(() => editor.add(holder, field.key, ''))}
            >
              Add another
            </button>
          </li>
        )}
      </ol>
    </div>
  )
})

function OneValue({
  field,
  value,
  several,
  depth,
  around,
}: {
  field: FieldView
  value: ValueView
  several: boolean
  depth: number
  around: ThingSurroundings
}) {
  const { editor, siteThings, onLook } = around
  const place = value.found && (
    <>
      {value.found.start !== null && (
        <button type="button" className="quiet" onClick={() => onLook(value.found!.start!)}>
          line {value.found.line}
        </button>
      )}
    </>
  )
  const origin = value.found && (
    <span className="block text-[12px] text-ink-3">
      {several ? (
        <>From {place}; kept in step with it.</>
      ) : (
        <>
          From {value.found.what}
          {value.found.start !== null && ', '}
          {place}; kept in step with it.
        </>
      )}
    </span>
  )
  if (value.kind === 'reference') {
    const known = siteThings.find((t) => t.id === value.text)
    return (
      <span>
        <span className="text-ink-3">→ </span>
        {known ? (
          <>
            {known.name}{' '}
            <span className="text-[12px] text-ink-3">
              {known.types.map(asLabel).join(', ')}, described on this site
            </span>
          </>
        ) : (
          <>
            <span className="break-all">{value.text}</span>{' '}
            <span className="text-[12px] text-carmine">not described on this site</span>
          </>
        )}
      </span>
    )
  }
  if (value.thing)
    return (
      <>
        <p className="pl-3 font-serif text-[15px]">
          {value.thing.types.map(asLabel).join(', ') || 'A thing without a type'}
          {value.thing.name && <span className="text-ink-2 italic"> {value.thing.name}</span>}
        </p>
        <ThingFields thing={value.thing} depth={depth + 1} around={around} />
      </>
    )
  if (!editor || field.reverse)
    return (
      <span className="break-words">
        {value.text}
        {origin}
      </span>
    )
  const plainThing = field.things.length > 0 && !field.text && !/^https?:/.test(value.text)
  return (
    <span className="flex flex-wrap items-baseline gap-x-3">
      <ValueField
        label={several ? `${asLabel(field.name)} ${field.values.indexOf(value) + 1}` : asLabel(field.name)}
        control={field.control === 'thing' ? 'text' : field.control}
        value={value.text}
        choices={field.choices}
        textWillDo={field.text}
        suggestions={around.suggestions}
        onType={(text) => editor.set(value.pointer, asJson(text, value.json, field.control))}
        onRest={editor.rest}
      />
      {plainThing && (
        <AddThing
          kind={field}
          around={around}
          label={`Make ${inWords(field.name)} a thing`}
          named={value.text}
          onAdd={(v) => {
            editor.set(value.pointer, v)
            editor.rest()
          }}
        />
      )}
      {origin && <span className="basis-full">{origin}</span>}
    </span>
  )
}
