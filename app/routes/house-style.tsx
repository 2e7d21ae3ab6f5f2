import { useState } from 'react'
import { Link } from 'react-router'
import { toast } from 'sonner'
import {
  defaultStyle,
  houseStyleSchema,
  ownStyle,
  presets,
  readHouseStyle,
  writeHouseStyle,
  type HouseStyle,
} from '../../core/rules/house-style.ts'
import { casings, type Casing } from '../../core/wording/casing.ts'
import { casingNames } from '../ui/casing-names.ts'
import { Addresses } from '../house-style/addresses.tsx'
import { Pattern } from '../house-style/pattern.tsx'
import { Rules } from '../house-style/rules.tsx'
import { Words } from '../house-style/words.tsx'
import { LimitsTable } from '../house-style/limits.tsx'
import type { Change } from '../house-style/change.ts'
import { useSession, useSessionParts, useSessionValue } from '../session/use-session.ts'
import { Choice } from '../ui/choice.tsx'
import { FilePick } from '../ui/file-pick.tsx'
import { download, fileName } from '../ui/download.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'

export const meta = () => [{ title: 'House style · Keen Quill' }]

/** Of the session, what a house style is made with: not the pages, thousands of which may be judged by it meanwhile. */
const followed = ['style', 'rules', 'site', 'templates'] as const

export default function HouseStyleScreen() {
  const session = useSession()
  const { style, rules, site, templates } = useSessionParts(session, followed)
  // Guessed from the pages as they are once all are judged.
  const isJudging = useSessionValue(session, ({ judging }) => judging !== null)
  const guess = useAnswer(isJudging ? null : () => core().titleGuess(), [session, isJudging])

  /** Decides the style anew; what cannot be is said and not kept. */
  const decide = (make: (now: HouseStyle) => HouseStyle, label: string) =>
    void session.decide(label, () => {
      const kept = ownStyle(make(session.get().style))
      const { error } = houseStyleSchema.validate(kept)
      if (error) toast.error(`Not kept: ${error.message}.`)
      return error ? [] : [{ page: '', key: 'style', after: Object.keys(kept).length > 0 ? kept : undefined }]
    })
  const change: Change = (make, label) => decide((now) => ({ ...now, ...make(now) }), label)

  /** What was typed last is in the file as well. */
  async function save() {
    await session.flush()
    const json = writeHouseStyle(session.get().style)
    download(fileName(site.name, '-house-style.json'), json, 'application/json')
  }

  async function take(file: File) {
    let json: unknown
    try {
      json = JSON.parse(await file.text())
    } catch {
      return void toast.error(`${file.name} is not valid JSON. Choose a house style that was saved here.`)
    }
    const read = readHouseStyle(json)
    if (!read.ok) return void toast.error(`${file.name}: ${read.why}`)
    decide(() => read.style, 'House style opened from a file')
    toast(`The house style now comes from ${file.name}.`)
  }

  return (
    <main className="mx-auto max-w-[1080px] px-6 pt-3 pb-16">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">House style</h1>
        <p className="font-serif text-[15px] text-ink-2 italic">what this site’s pages are judged by</p>
        <span className="ml-auto flex gap-5 text-[13px]">
          <button type="button" className="quiet" onClick={() => void save()}>
            Save as JSON
          </button>
          <FilePick
            label="House style as JSON"
            accept=".json"
            testId="style-input"
            onFile={(file) => void take(file)}
          >
            Open from a file …
          </FilePick>
        </span>
      </div>

      <Part
        title="Starting points"
        about="For sites of different kinds. None is better than another, and you can change everything afterwards."
      >
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-x-6 gap-y-3 text-[13px]">
          {presets.map((preset) => (
            <li key={preset.name}>
              <button
                type="button"
                className="action"
                onClick={() =>
                  decide(
                    (now) => ({
                      ...defaultStyle,
                      siteName: now.siteName,
                      language: now.language,
                      protectedWords: now.protectedWords,
                      forbiddenWords: now.forbiddenWords,
                      addresses: now.addresses,
                      ...preset.style,
                      limits: { ...defaultStyle.limits, ...preset.style.limits },
                    }),
                    `House style: ${preset.name}`,
                  )
                }
              >
                {preset.name}
              </button>
              <p className="mt-0.5 text-ink-2">{preset.for}</p>
            </li>
          ))}
        </ul>
      </Part>

      <Part title="Titles" about="The site’s name, the separator before it, and the use of capitals.">
        <div className="grid grid-cols-[1fr_120px_auto] items-end gap-x-6 gap-y-3 max-[700px]:grid-cols-1">
          <Line
            label="The site’s name in titles, {site}"
            value={style.siteName ?? ''}
            onKeep={(v) => change(() => ({ siteName: v.trim() || null }), 'The site’s name')}
          />
          <Line label="Separator" value={style.separator} onKeep={(v) => v !== '' && changeSeparator(v)} />
          <div className="pb-1.5">
            <Choice
              label="Casing"
              value={style.casing}
              options={casings.map((c) => ({ value: c, name: casingNames[c] }))}
              onChange={(casing: Casing) => change(() => ({ casing }), 'Casing style')}
            />
          </div>
        </div>
        {guess && guess.site !== style.siteName && (
          <p className="mt-2 text-[13px] text-ink-2">
            {guess.pages} titles end in “{guess.separator.trim()} {guess.site}”.{' '}
            <button
              type="button"
              className="action"
              onClick={() =>
                change(() => ({ siteName: guess.site, separator: guess.separator }), 'The site’s name')
              }
            >
              Use it as the site’s name
            </button>
          </p>
        )}
        <Pattern session={session} style={style} match={null} onKeep={change} />
        <p className="mt-3 text-[13px] text-ink-3">
          Casing styles apply to English; pages in other languages are left alone. AP and Chicago follow their
          manuals, from memory: articles, conjunctions, prepositions, first and last words, hyphens and the
          word after a colon.
        </p>
      </Part>

      <Part title="Words" about="One per line.">
        <div className="grid grid-cols-2 gap-6 max-[700px]:grid-cols-1">
          <Words
            label="Protected: always written this way"
            words={style.protectedWords}
            onKeep={(protectedWords) => change(() => ({ protectedWords }), 'Protected words')}
          />
          <Words
            label="Forbidden: never used"
            words={style.forbiddenWords}
            onKeep={(forbiddenWords) => change(() => ({ forbiddenWords }), 'Forbidden words')}
          />
        </div>
      </Part>

      <Part
        title="Limits"
        about="Advice, each with its basis. A text may go over; the mark says by how much."
      >
        <LimitsTable style={style} onKeep={change} />
      </Part>

      <Part title="By address" about="Extra settings for pages whose address matches.">
        <Addresses session={session} style={style} onKeep={change} />
      </Part>

      <Part
        title="Repeated headings"
        about="Rules that mend the same mistake on all pages built from one template."
      >
        <p className="text-[13px]">
          {templates.length === 0 ? 'There are no rules yet. ' : `${templates.length} kept with the site. `}
          <Link className="action" to={`/sites/${site.id}/templates`}>
            Find repeated headings …
          </Link>
        </p>
      </Part>

      <Part title="Severities" about="How serious each mark is, or whether it is made at all.">
        <Rules
          rules={rules}
          own={style.rules}
          onKeep={(make) => change((now) => ({ rules: make(now.rules) }), 'Severities')}
        />
      </Part>
    </main>
  )

  /** The separator changes in the patterns as well: they are of the same house. */
  function changeSeparator(separator: string) {
    change((now) => {
      const swapped = (pattern: string) => pattern.replaceAll(now.separator, separator)
      return {
        separator,
        titlePattern: now.titlePattern && swapped(now.titlePattern),
        addresses: now.addresses.map((a) =>
          a.titlePattern ? { ...a, titlePattern: swapped(a.titlePattern) } : a,
        ),
      }
    }, 'Separator')
  }
}

function Part({ title, about, children }: { title: string; about: string; children: React.ReactNode }) {
  return (
    <section className="sheet mb-4 px-7 py-5" aria-label={title}>
      <h2 className="font-serif text-[19px]">{title}</h2>
      <p className="mb-3 text-[13px] text-ink-2">{about}</p>
      {children}
    </section>
  )
}

/** A field that is kept when it is left or Enter is pressed. */
function Line({ label, value, onKeep }: { label: string; value: string; onKeep(value: string): void }) {
  const [typed, setTyped] = useState<string | null>(null)
  const keep = () => {
    if (typed !== null && typed !== value) onKeep(typed)
    setTyped(null)
  }
  return (
    <label className="block text-[13px] font-semibold">
      {label}
      <input
        className="field mt-0.5 font-normal whitespace-pre"
        value={typed ?? value}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
    </label>
  )
}
