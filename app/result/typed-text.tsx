import { useState } from 'react'
import { directionOf } from '../ui/direction.ts'
import { rawOffset } from './raw-offset.ts'
import { sliceRuns, type Run } from './emphasis.ts'
import { Runs } from './runs.tsx'

/**
 * Text that is typed where it is shown: a transparent text area lies over the drawn text, so that the words beyond
 * the cut can stand in faded ink while the browser's caret, selection and spell checking work as ever. While it is
 * typed in, it stands in regular weight and with its tokens; else as the result has it.
 */
export function TypedText({
  label,
  value,
  filled,
  shown,
  cut,
  runs,
  lang,
  placeholder,
  indent = 0,
  className,
  style,
  onChange,
  onLeave,
  testId,
}: {
  label: string
  /** As typed. */
  value: string
  /** With its tokens filled. */
  filled: string
  /** The folded text that stays before a cut, tokens filled. */
  shown: string
  cut: boolean
  /** The filled text in runs. */
  runs: Run[]
  lang: string | undefined
  placeholder: React.ReactNode
  /** Px at the beginning of the first line that something else takes. */
  indent?: number
  className: string
  style: React.CSSProperties
  onChange(value: string): void
  onLeave(): void
  testId: string
}) {
  const [typing, setTyping] = useState(false)
  const raw = typing || filled === value
  const text = raw && typing ? value : filled
  // Where tokens stand as typed, what would be cut cannot be told from the letters on the screen.
  const fades = cut && text === filled
  const at = fades ? rawOffset(text, shown.length) : text.length
  const drawn: Run[] = typing ? [{ text, weight: 'regular' }] : runs
  return (
    <div
      className={`typed ${className}`}
      style={{ ...style, textIndent: indent }}
      lang={lang}
      dir={directionOf(text)}
    >
      <div aria-hidden>
        {value === '' ? (
          <span className="text-faded italic">{placeholder}</span>
        ) : (
          <>
            <Runs runs={sliceRuns(drawn, 0, at)} />
            {fades && (
              <span className="text-faded">
                <Runs runs={sliceRuns(drawn, at, text.length)} />
              </span>
            )}
          </>
        )}
        {'\u200b'}
      </div>
      <textarea
        data-testid={testId}
        aria-label={label}
        value={text}
        lang={lang}
        spellCheck
        rows={1}
        onFocus={() => setTyping(true)}
        onChange={(e) => onChange(e.target.value.replace(/[\r\n]+/g, ' '))}
        onBlur={() => {
          setTyping(false)
          onLeave()
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.preventDefault()
        }}
      />
    </div>
  )
}
