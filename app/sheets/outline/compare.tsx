import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import type { Session } from '../../session/session.ts'
import { Dialog } from '../../ui/dialog.tsx'
import { FilePick } from '../../ui/file-pick.tsx'
import { plural } from '../../ui/plural.ts'
import { core } from '../../workers/client.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { CompareWith, Structure } from '../../workers/structure.ts'

/** The page's structure beside another's: one of the site's own, or one that was pasted or dropped in. */
export function Compare({
  session,
  page,
  view,
  other,
  onChoose,
}: {
  session: Session
  page: string
  view: PageView | null
  /** The other page; null while none is chosen. */
  other: string | null
  onChoose(other: string | null): void
}) {
  const [foreign, setForeign] = useState<{ html: Uint8Array; name: string } | null>(null)
  const [shown, setShown] = useState<{ own: Structure; other: Structure } | null>(null)
  const [pasting, setPasting] = useState(false)
  const [pasted, setPasted] = useState('')
  useEffect(() => {
    if (!view || (other === null && !foreign)) return
    let stale = false
    const with_: CompareWith = foreign ?? { id: other!, decisions: session.decisionsOf(other!) }
    void core()
      .compare(page, session.decisionsOf(page), with_)
      .then((result) => {
        if (stale) return
        if (result.ok) setShown(result)
        else {
          toast.error(result.why)
          setShown(null)
        }
      })
    return () => {
      stale = true
    }
  }, [view, other, foreign, page, session])

  const others = [...session.get().rows.values()]
    .filter((row) => row.id !== page)
    .sort((a, b) => (a.path < b.path ? -1 : 1))
  const take = async (file: File) =>
    setForeign({ html: new Uint8Array(await file.arrayBuffer()), name: file.name })
  const on = (other !== null || foreign !== null) && shown
  return (
    <section
      className="mt-4 border-t border-rule pt-3"
      data-testid="compare"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const file = e.dataTransfer.files[0]
        if (file) void take(file)
      }}
    >
      <h2 className="font-serif text-[17px]">Compare its structure</h2>
      <div className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[13px]">
        <label className="flex items-baseline gap-2">
          with
          <select
            className="max-w-64 border-b border-ink-3 bg-desk"
            value={foreign ? '' : (other ?? '')}
            data-testid="compare-with"
            onChange={(e) => {
              setForeign(null)
              onChoose(e.target.value || null)
            }}
          >
            <option value="">a page of the site …</option>
            {others.map((row) => (
              <option key={row.id} value={row.id}>
                {row.path}
              </option>
            ))}
          </select>
        </label>
        <FilePick
          label="An HTML file to compare with"
          accept=".html,.htm,.xhtml"
          testId="compare-file"
          onFile={(f) => void take(f)}
        >
          a file …
        </FilePick>
        <button type="button" className="quiet" onClick={() => setPasting(true)}>
          pasted source …
        </button>
        <span className="text-ink-3">or drop a page here; it is only read, never run</span>
        {on && (
          <button
            type="button"
            className="quiet ml-auto"
            onClick={() => {
              setForeign(null)
              setShown(null)
              onChoose(null)
            }}
          >
            Close the comparison
          </button>
        )}
      </div>
      {on && <SideBySide own={shown.own} other={shown.other} />}
      <Dialog
        open={pasting}
        onOpenChange={setPasting}
        title="Compare with pasted source"
        description="The source of any page; it is only read, never run."
      >
        <textarea
          aria-label="Source of the other page"
          className="field h-60 font-mono text-[12px]"
          value={pasted}
          onChange={(e) => setPasted(e.target.value)}
        />
        <button
          type="button"
          className="button button-main mt-3"
          disabled={pasted.trim() === ''}
          onClick={() => {
            setForeign({ html: new TextEncoder().encode(pasted), name: 'pasted page' })
            setPasting(false)
          }}
        >
          Compare
        </button>
      </Dialog>
    </section>
  )
}

function SideBySide({ own, other }: { own: Structure; other: Structure }) {
  const wording = (w: Structure['title']) =>
    w ? `${Math.round(w.px)} px, ${plural(w.characters, 'character')}` : 'none'
  const rows: [string, (s: Structure) => string][] = [
    ['Words of main content', (s) => s.words.toLocaleString('en')],
    ['Headings', (s) => String(s.headings.length)],
    ['Sections (H2)', (s) => String(s.sections)],
    ['Images', (s) => String(s.images)],
    ['Links', (s) => String(s.links)],
    ['Title', (s) => wording(s.title)],
    ['Description', (s) => wording(s.description)],
    ...(own.keyword
      ? ([
          [
            `“${own.keyword.text}” stands in`,
            (s) =>
              s.keyword!.places.length > 0 ? s.keyword!.places.join(', ') : 'none of the places checked',
          ],
          [`“${own.keyword.text}” in the text`, (s) => `${s.keyword!.inText} times`],
        ] as [string, (s: Structure) => string][])
      : []),
  ]
  return (
    <div className="mt-3 overflow-x-auto">
      <table className="w-full min-w-[560px] table-fixed text-[13px]">
        <thead>
          <tr className="border-b border-ink text-left align-baseline">
            <th scope="col" className="w-40 py-1 font-normal text-ink-3">
              <span className="sr-only">What is compared</span>
            </th>
            {[own, other].map((s, i) => (
              <th key={i} scope="col" className="truncate py-1 pr-3 font-semibold" title={s.name}>
                {i === 0 ? 'This page' : s.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, value]) => (
            <tr key={name} className="border-b border-rule-2 align-baseline">
              <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                {name}
              </th>
              <td className="py-1 pr-3">{value(own)}</td>
              <td className="py-1 pr-3">{value(other)}</td>
            </tr>
          ))}
          <tr className="align-top">
            <th scope="row" className="py-2 pr-3 text-left font-normal text-ink-2">
              Headings, side by side
            </th>
            {[own, other].map((s, i) => (
              <td key={i} className="py-2 pr-3">
                <ol>
                  {s.headings.slice(0, 200).map((h, k) => (
                    <li
                      key={k}
                      className="flex items-baseline gap-1.5 py-px"
                      style={{ paddingLeft: (Math.min(h.level, 6) - 1) * 12 }}
                    >
                      <span className="text-[12px] text-ink-3">H{h.level}</span>
                      <span
                        className={`min-w-0 font-serif text-[14px] ${h.landmark === null || h.landmark === 'main' ? '' : 'text-ink-3'} ${h.hasKeyword ? 'underline decoration-quill decoration-1 underline-offset-4' : ''}`}
                      >
                        {h.text}
                      </span>
                      {h.words > 0 && <span className="text-[12px] text-ink-3">{h.words}</span>}
                    </li>
                  ))}
                </ol>
                {s.headings.length > 200 && <p className="text-ink-3">and {s.headings.length - 200} more</p>}
                {s.headings.length === 0 && <p className="text-ink-3 italic">no headings</p>}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  )
}
