import { useState } from 'react'
import { Dialog } from './dialog.tsx'
import { commands, outlineCommands, printedKeys, printedOutlineKeys, type Command } from './commands.ts'
import { useCommand } from './command-registry.ts'

/** Keys that the ledger's cells answer to as any grid's do (WAI-ARIA Authoring Practices, grid). */
const ledgerKeys: [string[], string][] = [
  [['↑', '↓', '←', '→'], 'From cell to cell'],
  [['Enter'], 'Edit the cell, or open the page on the desk'],
  [['Esc'], 'Leave the cell as it was'],
]
const levels = /^level[1-6]$/
const ofOutline: [string[], string][] = [
  ...Object.entries(outlineCommands)
    .filter(([id]) => !levels.test(id))
    .map(([, command]): [string[], string] => [printedOutlineKeys(command), command.name]),
  [['1', '…', '6'], 'To that level'],
]

/** The list of keys, opened by its word in the masthead or by `?`; beside the routes, as the palette is. */
export function KeysHelp() {
  const [open, setOpen] = useState(false)
  useCommand('help', () => setOpen(true))
  const of = (where: Command['where']): [string[], string][] =>
    Object.values(commands)
      .filter((command) => command.where === where)
      .map((command) => [printedKeys(command.keys), command.name])
  return (
    <Dialog
      open={open}
      onOpenChange={setOpen}
      title="Keys"
      description="Everything can be done from the keyboard."
      width={760}
    >
      <div className="grid grid-cols-2 gap-x-8 max-[700px]:grid-cols-1">
        <div className="grid content-start gap-5">
          <Keys name="Everywhere" keys={of('Everywhere')} />
          <Keys name="Ledger" keys={ledgerKeys} />
          <Keys name="Desk" keys={of('Desk')} />
          <Keys name="Snippet" keys={[...of('Snippet'), ...of('Snippet and line-up')]} />
          <Keys name="Line-up" keys={[...of('Line-up'), ...of('Snippet and line-up')]} />
        </div>
        <Keys name="Outline" keys={ofOutline} />
      </div>
    </Dialog>
  )
}

function Keys({ name, keys }: { name: string; keys: [string[], string][] }) {
  return (
    <section>
      <h3 className="font-serif text-[17px]">{name}</h3>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[13px]">
        {keys.map(([combination, what]) => (
          <div key={what} className="contents">
            <dt className="whitespace-nowrap">
              {combination.map((key) => (
                <kbd key={key} className="mr-1">
                  {key}
                </kbd>
              ))}
            </dt>
            <dd className="text-ink-2">{what}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
