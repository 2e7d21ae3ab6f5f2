import { useState } from 'react'

/** A list of words, one on each line, kept when the field is left. */
export function Words({
  label,
  words,
  onKeep,
}: {
  label: string
  words: readonly string[]
  onKeep(words: string[]): void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <label className="block text-[13px] font-semibold">
      {label}
      <textarea
        className="field mt-0.5 h-28 font-serif text-[15px] font-normal"
        value={typed ?? words.join('\n')}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed !== null) {
            const next = [
              ...new Set(
                typed
                  .split('\n')
                  .map((w) => w.trim())
                  .filter(Boolean),
              ),
            ]
            if (next.join('\n') !== words.join('\n')) onKeep(next)
          }
          setTyped(null)
        }}
      />
    </label>
  )
}
