/** Pages' structures in columns, in figures and heading by heading, and what all others have that this page has not. */
import { counted, type Lacks, type PageStructure } from '../../../core/results/page-structure.ts'
import { inWords } from '../../../core/structured-data/words.ts'
import { plural } from '../../ui/plural.ts'
import type { Comparison } from '../../workers/structure.ts'

const MOST_HEADINGS = 200

export function SideBySide({ own, others, lacks, onRemove }: Comparison & { onRemove(index: number): void }) {
  const structures = others.flatMap((other) => (other.ok ? [other.structure] : []))
  const columns = [
    { name: 'This page', structure: own, why: '', index: null },
    ...others.map((other, index) =>
      other.ok
        ? { name: other.structure.name, structure: other.structure, why: '', index }
        : { name: other.name, structure: null, why: other.why, index },
    ),
  ]
  return (
    <>
      {structures.length > 0 && <WhatIsLacking lacks={lacks} others={structures.length} />}
      <div className="mt-3 overflow-x-auto">
        <table className="w-full table-fixed text-[13px]" style={{ minWidth: 120 + columns.length * 120 }}>
          <thead>
            <tr className="border-b border-ink text-left align-baseline">
              <th scope="col" className="w-32 py-1 font-normal text-ink-3">
                <span className="sr-only">What is compared</span>
              </th>
              {columns.map(({ name, index }) => (
                <th key={index} scope="col" className="py-1 pr-3 font-semibold">
                  <span className="line-clamp-2 [overflow-wrap:anywhere]" title={name}>
                    {name.replace(/^https?:\/\//, '')}
                  </span>
                  {index !== null && (
                    <button
                      type="button"
                      className="quiet font-normal"
                      aria-label={`Remove ${name}`}
                      onClick={() => onRemove(index)}
                    >
                      Remove
                    </button>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rowsFor(own).map(([name, value], i) => (
              <tr key={name} className="border-b border-rule-2 align-baseline">
                <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                  {name}
                </th>
                {columns.map(({ structure, why, index }) =>
                  structure ? (
                    <td key={index} className="py-1 pr-3 [overflow-wrap:anywhere]">
                      {value(structure)}
                    </td>
                  ) : (
                    // What could not be read says why, once, down its whole column.
                    i === 0 && (
                      <td
                        key={index}
                        rowSpan={rowsFor(own).length + 1}
                        className="border-l-2 border-carmine py-1 pr-3 pl-2 align-top"
                        role="alert"
                      >
                        {why}
                      </td>
                    )
                  ),
                )}
              </tr>
            ))}
            <tr className="align-top">
              <th scope="row" className="py-2 pr-3 text-left font-normal text-ink-2">
                Headings, each with the words of its section
              </th>
              {columns.map(
                ({ structure, index }) =>
                  structure && (
                    <td key={index} className="py-2 pr-3">
                      <Headings structure={structure} />
                    </td>
                  ),
              )}
            </tr>
          </tbody>
        </table>
      </div>
    </>
  )
}

const wording = (w: PageStructure['title']) =>
  w ? `${Math.round(w.px)} px, ${plural(w.characters, 'character')}` : 'none'

function rowsFor({ keyword }: PageStructure): [string, (s: PageStructure) => string][] {
  return [
    ['Words of main content', (s) => s.words.toLocaleString('en')],
    ['Words before the first heading', (s) => s.lead.toLocaleString('en')],
    ['Headings', (s) => String(s.headings.length)],
    ['Sections (H2)', (s) => String(s.sections)],
    [
      'Images',
      (s) => `${s.images}${s.imagesWithoutAlt > 0 ? `, ${s.imagesWithoutAlt} without alternative text` : ''}`,
    ],
    ['Links', (s) => `${s.linksWithin} within the site, ${s.linksOut} to others`],
    ['Title', (s) => wording(s.title)],
    ['Description', (s) => wording(s.description)],
    ['Structured data', (s) => (s.types.length > 0 ? s.types.map(inWords).join(', ') : 'none')],
    ...(keyword
      ? ([
          [
            `“${keyword.text}” stands in`,
            (s) =>
              s.keyword!.places.length > 0 ? s.keyword!.places.join(', ') : 'none of the places checked',
          ],
          [`“${keyword.text}” in the text`, (s) => `${s.keyword!.inText} times`],
        ] as [string, (s: PageStructure) => string][])
      : []),
  ]
}

function WhatIsLacking({
  lacks: { subjects, places, types, fewer },
  others,
}: {
  lacks: Lacks
  others: number
}) {
  const who = others === 1 ? 'The other page has' : `All ${others} others have`
  const sentences = [
    subjects.length > 0 && `${who} in ${others === 1 ? 'its' : 'their'} headings: ${subjects.join(', ')}.`,
    places.length > 0 && `${who} the phrase in: ${places.join(', ')}.`,
    types.length > 0 && `${who} structured data for: ${types.map(inWords).join(', ')}.`,
    fewer.length > 0 &&
      `${who} more ${fewer
        .map(
          ({ what, ours, least }) =>
            `${counted[what]} (${least.toLocaleString('en')}${others > 1 ? ' or more' : ''}, here ${ours.toLocaleString('en')})`,
        )
        .join(', ')}.`,
  ].filter(Boolean)
  return (
    <div className="mt-3 border-y border-rule py-2 text-[13px] text-ink-2" data-testid="what-is-lacking">
      {sentences.length === 0
        ? `Nothing that ${others === 1 ? 'the other page has' : 'all the others have'} is wanting here.`
        : sentences.map((sentence) => <p key={String(sentence)}>{sentence}</p>)}
    </div>
  )
}

function Headings({ structure: { headings } }: { structure: PageStructure }) {
  return (
    <>
      <ol>
        {headings.slice(0, MOST_HEADINGS).map((h, i) => (
          <li
            key={i}
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
      {headings.length > MOST_HEADINGS && (
        <p className="text-ink-3">and {headings.length - MOST_HEADINGS} more</p>
      )}
      {headings.length === 0 && <p className="text-ink-3 italic">no headings</p>}
    </>
  )
}
