/** What is to be changed on many pages: the kinds of step, and what each asks. */
import { useState } from 'react'
import { replaceable, type BulkStep, type Replaceable } from '../../core/work/bulk/step.ts'
import { casings, type Casing } from '../../core/wording/casing.ts'
import { casingNames } from '../ui/casing-names.ts'
import { Choice } from '../ui/choice.tsx'

export type StepKind = BulkStep['kind']
export const stepNames: Record<StepKind, string> = {
  replace: 'Replace words',
  fill: 'Fill what is empty',
  pattern: 'Titles in a pattern',
  casing: 'Casing of titles',
  repair: 'Certain repairs',
  robots: 'Shown in results or not',
  keyword: 'Give a keyword',
  state: 'Set the state',
  stet: 'Let marks stand',
}
const partNames: Record<Replaceable, string> = {
  title: 'titles',
  description: 'descriptions',
  heading: 'headings',
  alternative: 'alternative texts',
}
export interface RuleChoice {
  id: string
  name: string
  pages: number
}

interface FormProps {
  onStep(step: BulkStep | null): void
}

/** The form of one kind; it says what the step is as soon as it is whole, and null before. */
export function StepForm({
  kind,
  titlePattern,
  casing,
  repairable,
  marked,
  onStep,
}: FormProps & {
  kind: StepKind
  /** The house's own; null for none. */
  titlePattern: string | null
  casing: Casing
  /** Rules with certain repairs that mark the pages, and all rules that do. */
  repairable: readonly RuleChoice[]
  marked: readonly RuleChoice[]
}) {
  switch (kind) {
    case 'replace':
      return <ReplaceForm onStep={onStep} />
    case 'fill':
      return <FillForm titlePattern={titlePattern} onStep={onStep} />
    case 'pattern':
      return (
        <TextForm
          label="Pattern"
          start={titlePattern ?? '{page} | {site}'}
          hint="{page} are the page’s own words; {site}, {section}, {h1}, {price} and others are filled from it"
          toStep={(pattern) => ({ kind, pattern })}
          onStep={onStep}
        />
      )
    case 'casing':
      return <CasingForm casing={casing} onStep={onStep} />
    case 'repair':
      return <RulesForm rules={repairable} onStep={onStep} />
    case 'robots':
      return (
        <ChoiceForm
          label="These pages"
          options={[
            { value: 'noindex', name: 'are not shown in results (noindex)' },
            { value: 'index', name: 'are shown in results' },
          ]}
          toStep={(value) => ({ kind, index: value === 'index' })}
          onStep={onStep}
        />
      )
    case 'keyword':
      return <KeywordForm onStep={onStep} />
    case 'state':
      return (
        <ChoiceForm
          label="State"
          options={[
            { value: 'approved', name: 'approved' },
            { value: 'drafted', name: 'drafted' },
            { value: 'handed off', name: 'handed off' },
          ]}
          toStep={(value) => ({ kind, state: value as 'drafted' })}
          onStep={onStep}
        />
      )
    case 'stet':
      return <StetForm rules={marked} onStep={onStep} />
  }
}

/** Keeps what is typed and says each time what step that is. */
function useForm<V>(start: V, toStep: (values: V) => BulkStep | null, onStep: FormProps['onStep']) {
  const [values, setValues] = useState(start)
  const change = (more: Partial<V>) => {
    const next = { ...values, ...more }
    setValues(next)
    onStep(toStep(next))
  }
  return [values, change] as const
}
const field = 'border-b border-sign bg-transparent px-1 py-0.5'
const line = 'flex flex-wrap items-baseline gap-x-6 gap-y-2 text-[13px]'

function ReplaceForm({ onStep }: FormProps) {
  const [values, change] = useForm(
    {
      find: '',
      with: '',
      how: 'plain' as 'plain' | 'whole words' | 'pattern',
      matchCase: false,
      in: ['title', 'description'] as Replaceable[],
    },
    (v) => (v.find === '' || v.in.length === 0 ? null : { kind: 'replace', ...v }),
    onStep,
  )
  return (
    <div className={line}>
      <label>
        Replace{' '}
        <input
          autoFocus
          className={`${field} w-52`}
          maxLength={1000}
          value={values.find}
          onChange={(e) => change({ find: e.target.value })}
        />
      </label>
      <label>
        with{' '}
        <input
          className={`${field} w-52`}
          maxLength={1000}
          value={values.with}
          onChange={(e) => change({ with: e.target.value })}
        />
      </label>
      <Choice
        label="as"
        value={values.how}
        options={[
          { value: 'plain', name: 'it stands' },
          { value: 'whole words', name: 'whole words' },
          { value: 'pattern', name: 'a pattern: * any text, # a number' },
        ]}
        onChange={(how) => change({ how })}
      />
      <Tick on={values.matchCase} onTick={(matchCase) => change({ matchCase })}>
        capitals count
      </Tick>
      <span className="flex gap-x-4">
        in
        {replaceable.map((part) => (
          <Tick
            key={part}
            on={values.in.includes(part)}
            onTick={(on) =>
              change({ in: replaceable.filter((p) => (p === part ? on : values.in.includes(p))) })
            }
          >
            {partNames[part]}
          </Tick>
        ))}
      </span>
    </div>
  )
}

function Tick({
  on,
  onTick,
  children,
}: {
  on: boolean
  onTick(on: boolean): void
  children: React.ReactNode
}) {
  return (
    <label className="inline-flex items-baseline gap-1.5">
      <input type="checkbox" checked={on} onChange={(e) => onTick(e.target.checked)} /> {children}
    </label>
  )
}

function FillForm({ titlePattern, onStep }: FormProps & { titlePattern: string | null }) {
  const [values, change] = useForm(
    {
      field: 'description' as 'title' | 'description',
      from: 'sentences' as 'h1' | 'sentences' | 'pattern',
      pattern: titlePattern ?? '{h1}',
    },
    (v) =>
      v.from === 'pattern' && v.pattern.trim() === ''
        ? null
        : { kind: 'fill', ...v, from: v.field === 'title' && v.from === 'sentences' ? 'h1' : v.from },
    onStep,
  )
  return (
    <div className={line}>
      <Choice
        label="Fill empty"
        value={values.field}
        options={[
          { value: 'description', name: 'descriptions' },
          { value: 'title', name: 'titles' },
        ]}
        onChange={(f) => change({ field: f, ...(f === 'title' ? { from: 'h1' as const } : {}) })}
      />
      <Choice
        label="from"
        value={values.from}
        options={[
          ...(values.field === 'description'
            ? [{ value: 'sentences' as const, name: 'the page’s first sentences' }]
            : []),
          { value: 'h1', name: 'the H1' },
          { value: 'pattern', name: 'a pattern' },
        ]}
        onChange={(from) => change({ from })}
      />
      {values.from === 'pattern' && (
        <label>
          Pattern{' '}
          <input
            className={`${field} w-72`}
            maxLength={1000}
            value={values.pattern}
            onChange={(e) => change({ pattern: e.target.value })}
          />
        </label>
      )}
      <Begin shown={() => change({})} />
    </div>
  )
}

/** A form whose first choice is a good one asks for a word before it looks at the pages. */
function Begin({ shown }: { shown(): void }) {
  return (
    <button type="button" className="action" onClick={shown}>
      See what it would do
    </button>
  )
}

function TextForm({
  label,
  start,
  hint,
  toStep,
  onStep,
}: FormProps & { label: string; start: string; hint: string; toStep(text: string): BulkStep }) {
  const [{ text }, change] = useForm(
    { text: start },
    (v) => (v.text.trim() === '' ? null : toStep(v.text.trim())),
    onStep,
  )
  return (
    <div className={line}>
      <label>
        {label}{' '}
        <input
          autoFocus
          className={`${field} w-80`}
          maxLength={300}
          value={text}
          onChange={(e) => change({ text: e.target.value })}
        />
      </label>
      <Begin shown={() => change({})} />
      <span className="text-ink-3">{hint}</span>
    </div>
  )
}

function ChoiceForm({
  label,
  options,
  toStep,
  onStep,
}: FormProps & {
  label: string
  options: { value: string; name: string }[]
  toStep(value: string): BulkStep
}) {
  const [{ value }, change] = useForm({ value: options[0]!.value }, (v) => toStep(v.value), onStep)
  return (
    <div className={line}>
      <Choice label={label} value={value} options={options} onChange={(v) => change({ value: v })} />
      <Begin shown={() => change({})} />
    </div>
  )
}

function CasingForm({ casing, onStep }: FormProps & { casing: Casing }) {
  return (
    <ChoiceForm
      label="Titles in"
      options={[casing === 'as typed' ? 'sentence' : casing, ...casings]
        .filter((c, i, all) => c !== 'as typed' && all.indexOf(c) === i)
        .map((c) => ({ value: c, name: casingNames[c] }))}
      toStep={(value) => ({ kind: 'casing', casing: value as Casing })}
      onStep={onStep}
    />
  )
}

function KeywordForm({ onStep }: FormProps) {
  const [values, change] = useForm(
    { phrase: '', role: 'secondary' as 'primary' | 'secondary' },
    (v) => (v.phrase.trim() === '' ? null : { kind: 'keyword', phrase: v.phrase.trim(), role: v.role }),
    onStep,
  )
  return (
    <div className={line}>
      <label>
        Phrase{' '}
        <input
          autoFocus
          className={`${field} w-64`}
          maxLength={200}
          value={values.phrase}
          onChange={(e) => change({ phrase: e.target.value })}
        />
      </label>
      <Choice
        label="as"
        value={values.role}
        options={[
          { value: 'secondary', name: 'secondary keyword' },
          { value: 'primary', name: 'primary keyword' },
        ]}
        onChange={(role) => change({ role })}
      />
    </div>
  )
}

function RulesForm({ rules, onStep }: FormProps & { rules: readonly RuleChoice[] }) {
  const [{ chosen }, change] = useForm(
    { chosen: [] as string[] },
    (v) => (v.chosen.length === 0 ? null : { kind: 'repair', rules: v.chosen }),
    onStep,
  )
  if (rules.length === 0)
    return <p className="text-[13px] text-ink-2">No mark on these pages has a certain repair.</p>
  return (
    <fieldset className="flex max-h-28 flex-wrap gap-x-6 gap-y-1 overflow-auto text-[13px]">
      <legend className="sr-only">Repairs of</legend>
      {rules.map(({ id, name, pages }) => (
        <Tick
          key={id}
          on={chosen.includes(id)}
          onTick={(on) => change({ chosen: on ? [...chosen, id] : chosen.filter((c) => c !== id) })}
        >
          {name}, {pages.toLocaleString('en')}
        </Tick>
      ))}
    </fieldset>
  )
}

function StetForm({ rules, onStep }: FormProps & { rules: readonly RuleChoice[] }) {
  const [values, change] = useForm(
    { rule: rules[0]?.id ?? '', reason: '' },
    (v) =>
      v.rule === '' || v.reason.trim() === ''
        ? null
        : { kind: 'stet', rule: v.rule, reason: v.reason.trim() },
    onStep,
  )
  if (rules.length === 0) return <p className="text-[13px] text-ink-2">These pages have no marks.</p>
  return (
    <div className={line}>
      <Choice
        label="Let stand"
        value={values.rule}
        options={rules.map(({ id, name, pages }) => ({
          value: id,
          name: `${name}, ${pages.toLocaleString('en')}`,
        }))}
        onChange={(rule) => change({ rule })}
      />
      <label>
        because{' '}
        <input
          className={`${field} w-80`}
          maxLength={1000}
          value={values.reason}
          onChange={(e) => change({ reason: e.target.value })}
        />
      </label>
    </div>
  )
}
