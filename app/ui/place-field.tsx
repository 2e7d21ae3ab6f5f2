import { useState } from 'react'

/** Where readers are, of a local market; handed over when it is sent, not with every key. */
export function PlaceField({ onPlace }: { onPlace(place: string): void }) {
  const [typed, setTyped] = useState('')
  return (
    <form
      className="flex items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        onPlace(typed.trim())
      }}
    >
      <label>
        Place{' '}
        <input
          className="w-32 border-b border-sign bg-transparent px-1"
          maxLength={100}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <button type="submit" className="quiet">
        Look up
      </button>
    </form>
  )
}
