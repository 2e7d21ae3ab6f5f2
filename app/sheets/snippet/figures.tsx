/** What is said of the drafted result in figures and words. */
import type { Measured } from '../../../core/measure/snippet.ts'
import { foldText } from '../../../core/measure/width.ts'
import { boldExtra, type Run } from '../../result/emphasis.ts'
import { copyText } from '../../ui/copy.ts'
import { Quoted } from '../../ui/quoted.tsx'
import type { PageView } from '../../workers/page-view.ts'

/** Which tokens stand in the wording, and with what they are filled. */
export function TokenLine({
  typed,
  tokens,
}: {
  typed: { title: string; description: string }
  tokens: PageView['tokens']
}) {
  const used = [
    ...new Set(
      `${typed.title} ${typed.description}`.match(/\{(?:page|site|section|year|month|h1|author|price)\}/g) ??
        [],
    ),
  ]
  if (used.length === 0) return null
  return (
    <p className="mt-1.5 text-[13px] text-ink-2" data-testid="tokens">
      {used.map((token, i) => {
        const value = tokens[token.slice(1, -1) as keyof typeof tokens]
        return (
          <span key={token}>
            {i > 0 && ', '}
            <code className="font-mono text-[12.5px]">{token}</code>{' '}
            {value ? (
              `is “${value}”`
            ) : (
              <strong className="font-semibold text-carmine">
                {token === '{site}' ? 'is unknown: add it in the house style' : 'is not on the page'}
              </strong>
            )}
          </span>
        )
      })}
      . The file gets the filled-in text.
    </p>
  )
}

export function CopyButtons({
  title,
  description,
  url,
}: {
  title: string
  description: string
  url: string
}) {
  return (
    <span className="flex gap-3 text-[13px] text-ink-2">
      Copy
      {(
        [
          ['title', title, 'Title'],
          ['description', description, 'Description'],
          ['address', url, 'Address'],
        ] as const
      ).map(([name, text, said], i) => (
        <button
          key={name}
          type="button"
          className="quiet"
          title={`Alt+${i + 1}`}
          onClick={() => void copyText(foldText(text), said)}
        >
          {name}
        </button>
      ))}
    </span>
  )
}

/** How a text stands on a narrow screen, and the words that would go. */
export function NarrowFigures({
  name,
  measured,
  limit,
}: {
  name: string
  measured: Measured
  limit?: number
}) {
  const { narrow, px } = measured
  if (measured.text === '') return null
  const words = { fits: 'fits', 'at-risk': 'at risk', cut: 'cut' }[narrow.state]
  return (
    <span className="block">
      {name} <span className={narrow.state === 'cut' ? 'font-semibold text-carmine' : ''}>{words}</span>
      {limit !== undefined && ` (${Math.round(px)} of ${limit} px)`}
      {narrow.cut && <Quoted text={`; lost: “${shortened(narrow.lost.trim())}”`} />}
    </span>
  )
}
const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60)} …` : text)

export function Figures({
  name,
  measured,
  runs,
  size,
  limit,
  testId,
}: {
  name: string
  measured: Measured
  runs: Run[]
  size: number
  limit: number
  testId: string
}) {
  const { wide, px, graphemes, estimatedPx, localPx } = measured
  const lastWord = wide.shown.split(' ').at(-1)
  const extra = Math.round(boldExtra(runs, size))
  return (
    <p>
      {name}{' '}
      <strong
        className={wide.state === 'cut' ? 'text-carmine' : 'text-ink'}
        data-testid={testId}
        data-px={px}
      >
        {Math.round(px)} px
      </strong>
      {extra > 0 && <span className="text-ink-3"> +{extra} bold</span>}
      {estimatedPx > 0 && ` (${Math.round(estimatedPx)} estimated)`}
      {localPx > 0 && (
        <span title="The font of results does not have these characters; a browser takes another one for them, and readers may have a different one.">
          {` (${Math.round(localPx)} in this browser’s own font)`}
        </span>
      )}
      {wide.state === 'cut' ? (
        <Quoted text={`, cut after “${lastWord}”`} />
      ) : wide.state === 'at-risk' ? (
        `, at risk: near ${limit}`
      ) : (
        px > 0 && ', fits'
      )}
      <span className="ml-3">{graphemes} characters</span>
    </p>
  )
}
