import { Command } from 'cmdk'
import { Dialog as Radix } from 'radix-ui'
import { useState } from 'react'
import { printedKeys } from './commands.ts'
import { useCommand, usePaletteGroups } from './command-registry.ts'

/**
 * Every page, view and command by its name, opened by Ctrl K. It stands beside the routes, so that it stays open, with
 * what was typed, while one view gives way to the next.
 */
export function Palette() {
  const [open, setOpen] = useState(false)
  useCommand('palette', () => setOpen((now) => !now))
  return (
    <Radix.Root open={open} onOpenChange={setOpen}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-30 bg-black/30" />
        <Radix.Content
          aria-describedby=""
          className="sheet fixed top-[12vh] left-1/2 z-40 w-[620px] max-w-[94vw] -translate-x-1/2"
        >
          <Radix.Title className="sr-only">Go to</Radix.Title>
          <Found onDone={() => setOpen(false)} />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}

function Found({ onDone }: { onDone(): void }) {
  const [typed, setTyped] = useState('')
  const groups = usePaletteGroups().map(({ name, find }) => ({ name, entries: find(typed.trim()) }))
  const nothing = groups.every(({ entries }) => entries.length === 0)
  return (
    <Command label="Go to" shouldFilter={false} loop>
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder="A page, a view, or what to do"
        className="w-full border-b border-ink bg-transparent px-5 py-3.5 font-serif text-[18px] outline-none placeholder:text-ink-3"
      />
      {nothing && (
        <p role="status" className="px-5 py-4 text-ink-2">
          Nothing here is called that.
        </p>
      )}
      <Command.List hidden={nothing} label="What was found" className="max-h-[56vh] overflow-auto pb-2">
        {groups.map(
          ({ name, entries }) =>
            entries.length > 0 && (
              <Command.Group
                key={name}
                heading={name}
                className="[&_[cmdk-group-heading]]:px-5 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:font-serif [&_[cmdk-group-heading]]:text-[14px] [&_[cmdk-group-heading]]:text-ink-3 [&_[cmdk-group-heading]]:italic"
              >
                {entries.map((entry) => (
                  <Command.Item
                    key={entry.id}
                    value={`${name} ${entry.id}`}
                    onSelect={() => {
                      onDone()
                      entry.run()
                    }}
                    className="flex cursor-pointer items-baseline gap-3 px-5 py-1.5 data-[selected=true]:bg-quill-soft"
                  >
                    <span className="min-w-0 truncate">{entry.name}</span>
                    {entry.detail && (
                      <span className="ml-auto min-w-0 shrink-0 truncate text-[12px] text-ink-2">
                        {entry.detail}
                      </span>
                    )}
                    {entry.keys && (
                      <span className="ml-auto shrink-0 whitespace-nowrap">
                        {printedKeys(entry.keys).map((key) => (
                          <kbd key={key} className="ml-1">
                            {key}
                          </kbd>
                        ))}
                      </span>
                    )}
                  </Command.Item>
                ))}
              </Command.Group>
            ),
        )}
      </Command.List>
    </Command>
  )
}
