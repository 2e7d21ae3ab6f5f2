import { useState } from 'react'

/** One line that is typed where it stands; what cannot be is said and not kept. */
export function TypedLine({
  label,
  value,
  placeholder,
  wrong,
  onType,
  onKeyDown,
}: {
  label: string
  value: string
  placeholder?: string
  /** Why a text cannot be kept; null where it can. */
  wrong?(text: string): string | null
  onType(text: string): void
  onKeyDown?(event: React.KeyboardEvent<HTMLInputElement>): void
}) {
  const [refused, setRefused] = useState<{ text: string; why: string } | null>(null)
  return (
    <span className="min-w-0 flex-1">
      <input
        aria-label={label}
        dir="auto"
        aria-invalid={refused !== null}
        className={`w-full border-b bg-transparent ${refused ? 'border-carmine' : 'border-rule hover:border-sign'}`}
        placeholder={placeholder}
        value={refused?.text ?? value}
        onChange={(e) => {
          const text = e.target.value
          const why = wrong?.(text) ?? null
          setRefused(why ? { text, why } : null)
          if (!why) onType(text)
        }}
        onBlur={() => setRefused(null)}
        onKeyDown={onKeyDown}
      />
      {refused && <span className="block text-[12px] text-carmine">{refused.why}</span>}
    </span>
  )
}
