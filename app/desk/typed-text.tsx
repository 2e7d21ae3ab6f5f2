import { rawOffset } from './raw-offset.ts'

/**
 * Text that is typed where it is shown: a transparent text area lies over the drawn text, so that the words beyond
 * the cut can stand in faded ink while the browser's caret, selection and spell checking work as ever.
 */
export function TypedText({
  label,
  value,
  shown,
  cut,
  lang,
  placeholder,
  className,
  style,
  onChange,
  onLeave,
  testId,
}: {
  label: string
  value: string
  /** The folded text that stays before a cut. */
  shown: string
  cut: boolean
  lang: string | undefined
  placeholder: string
  className: string
  style: React.CSSProperties
  onChange(value: string): void
  onLeave(): void
  testId: string
}) {
  const at = cut ? rawOffset(value, shown.length) : value.length
  return (
    <div className={`typed ${className}`} style={style} lang={lang}>
      <div aria-hidden>
        {value === '' ? (
          <span className="text-faded italic">{placeholder}</span>
        ) : (
          <>
            {value.slice(0, at)}
            {cut && <span className="text-faded">{value.slice(at)}</span>}
          </>
        )}
        {'\u200b'}
      </div>
      <textarea
        data-testid={testId}
        aria-label={label}
        value={value}
        lang={lang}
        spellCheck
        rows={1}
        onChange={(e) => onChange(e.target.value.replace(/[\r\n]+/g, ' '))}
        onBlur={onLeave}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.preventDefault()
        }}
      />
    </div>
  )
}
