import { useEffect, useState } from 'react'
import { Dialog } from './dialog.tsx'

const groups: [string, [string[], string][]][] = [
  [
    'Everywhere',
    [
      [['Ctrl', 'Z'], 'undo, even after a reload'],
      [['Ctrl', 'Shift', 'Z'], 'redo'],
      [['?'], 'this list'],
    ],
  ],
  [
    'Ledger',
    [
      [['↑', '↓', '←', '→'], 'from cell to cell'],
      [['Enter'], 'edit the cell, or open the page on the desk'],
      [['Esc'], 'leave the cell as it was'],
    ],
  ],
  [
    'Desk',
    [
      [['Alt', '↓'], 'next page'],
      [['Alt', '↑'], 'page before'],
      [['Alt', '1'], 'copy the title'],
      [['Alt', '2'], 'copy the description'],
      [['Alt', '3'], 'copy the address'],
      [['Alt', 'A'], 'approve the page'],
      [['Alt', 'T'], 'keep the title as a take'],
      [['Alt', 'C'], 'set the title in the house style’s casing'],
      [['Alt', 'I'], 'start from what is shown instead'],
      [['Alt', 'S'], 'to the slug'],
    ],
  ],
  [
    'Outline',
    [
      [['↑', '↓'], 'from heading to heading'],
      [['←', '→'], 'fold and unfold what is below'],
      [['Tab'], 'one step in, with its section'],
      [['Shift', 'Tab'], 'one step out'],
      [['Alt', '→'], 'in alone; Alt ← out alone'],
      [['1'], 'to 6: to that level'],
      [['P'], 'a paragraph; H a heading again'],
      [['M'], 'join with the next'],
      [['S'], 'subtitle of the one above'],
      [['G'], 'close the gap'],
      [['Del'], 'remove an empty one'],
      [['Enter'], 'change the words'],
      [['L'], 'its line in the source'],
      [['Esc'], 'leave the outline, so that Tab moves on'],
    ],
  ],
]

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** The list of shortcuts, opened by its word or by `?`. */
export function Shortcuts() {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !isTyping(event.target)) setOpen(true)
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [])
  return (
    <>
      <button type="button" className="hover:text-ink" onClick={() => setOpen(true)}>
        Keys <kbd>?</kbd>
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Keys"
        description="Everything can be done from the keyboard."
        width={640}
      >
        <div className="grid grid-cols-2 gap-x-8 gap-y-5">
          {groups.map(([name, keys]) => (
            <section key={name}>
              <h3 className="font-serif text-[17px]">{name}</h3>
              <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[13px]">
                {keys.map(([combination, what]) => (
                  <div key={what} className="contents">
                    <dt className="whitespace-nowrap">
                      {combination.map((k) => (
                        <kbd key={k} className="mr-1">
                          {k}
                        </kbd>
                      ))}
                    </dt>
                    <dd className="text-ink-2">{what}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </Dialog>
    </>
  )
}
