/** Where the eye lands: the line-up with ink that is heavy where a reader is likely to look; a model, said to be one. */
import { useMemo } from 'react'
import { measure, type Role, type Screen, type Slots } from '../../../core/measure/snippet.ts'
import { foldText } from '../../../core/measure/width.ts'
import { whereTheEyeLands, type EyeLine, type EyeWeights, type EyeWord } from '../../../core/results/eye.ts'
import { compileKeyword, findKeyword } from '../../../core/words/match.ts'

export interface EyeResult {
  url: string
  title: string
  description: string
  isOurs: boolean
}

/** Ink is never paler than this, so that what is looked at least can still be read (WCAG 1.4.3), and strokes are never heavier than so many px. */
const PALEST = 0.68
const HEAVIEST = 0.9

export function EyeView({
  results,
  phrase,
  screen,
  slots,
  weights,
  lang,
}: {
  results: EyeResult[]
  phrase: string
  screen: Screen
  slots: Slots
  weights: EyeWeights
  lang: string | null
}) {
  const { lines, words, most } = useMemo(() => {
    const keyword = compileKeyword(phrase, lang)
    const linesOf = (role: Role, text: string): EyeLine[] =>
      measure(foldText(text), role, slots)[screen].lines.map((line) => ({
        text: line,
        role,
        bold: findKeyword(line, keyword).flatMap((match) => match.words),
      }))
    const all = results.map((r) => [...linesOf('title', r.title), ...linesOf('description', r.description)])
    const shares = whereTheEyeLands(all, lang, weights)
    return { lines: all, words: shares, most: Math.max(...shares.flat(2).map((w) => w.share), 0) }
  }, [results, phrase, screen, slots, weights, lang])
  return (
    <div data-testid="eye">
      <p className="mt-3 text-[13px] text-ink-2">
        A model, not a measurement, from what is commonly said of how lists are read (from memory, no source).
        Ink is heavier high in the list, in the first line before the second, at the beginning of a line, on
        bold words and numbers, and paler where all neighbours say the same. How much each counts is the house
        style’s to say.
      </p>
      <div className="mt-3 overflow-x-auto">
        <ol style={{ width: slots.title[screen].column + 24 }}>
          {results.map((result, i) => (
            <li
              key={result.url}
              className={`result border-t border-rule-2 py-2.5 pl-3 ${result.isOurs ? 'border-l-2 border-l-quill' : ''}`}
              lang={lang ?? undefined}
            >
              <span className="sr-only">{result.isOurs ? 'Ours. ' : ''}</span>
              {lines[i]!.map((line, k) => (
                <p
                  key={k}
                  className="whitespace-pre"
                  style={
                    line.role === 'title'
                      ? { fontSize: slots.title[screen].size, lineHeight: '26px' }
                      : { fontSize: slots.description[screen].size, lineHeight: '22px' }
                  }
                >
                  <Inked text={line.text} words={words[i]![k]!} most={most} />
                </p>
              ))}
            </li>
          ))}
        </ol>
      </div>
    </div>
  )
}

function Inked({ text, words, most }: { text: string; words: EyeWord[]; most: number }) {
  const pieces: React.ReactNode[] = []
  let at = 0
  for (const { start, end, share } of words) {
    // The square root: shares fall off fast, and all of the list should be seen.
    const heavy = Math.sqrt(most > 0 ? share / most : 0)
    const ink = Math.round((PALEST + (1 - PALEST) * heavy) * 100)
    pieces.push(
      <span
        key={start}
        style={{
          color: `color-mix(in srgb, var(--ink) ${ink}%, var(--paper))`,
          // A stroke, and no heavier type: widths stay true.
          WebkitTextStroke: `${(HEAVIEST * heavy).toFixed(2)}px currentColor`,
        }}
      >
        {text.slice(at, end)}
      </span>,
    )
    at = end
  }
  pieces.push(<span key="rest">{text.slice(at)}</span>)
  return <>{pieces}</>
}
