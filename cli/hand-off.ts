/** `quill hand-off`: a project file's site as the application's hand-off would save it. */
import { parseArgs } from 'node:util'
import { dateFrom } from './inputs.ts'
import { checkOut } from './output-folder.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { siteFrom } from './site.ts'
import { isProjectFile } from './site-files.ts'
import { plural } from './words.ts'
import { writeSite } from './write-site.ts'

export async function handOff(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      date: { type: 'string' },
      'changed-only': { type: 'boolean', default: false },
    },
  })
  const [project] = positionals
  if (project === undefined || positionals.length !== 1) throw new Problem('hand-off takes one project file.')
  if (!values.out) throw new Problem('Name an empty or new folder to write to: --out DIR.')
  if (!isProjectFile(project))
    throw new Problem(`${project} is not a project file. Save one in the application, under Hand-off.`)
  const site = siteFrom([project], { baseUrl: undefined, date: dateFrom(values.date) })
  checkOut(values.out, positionals)
  const written = await writeSite(site, values.out, {
    strict: false,
    lists: true,
    changedOnly: values['changed-only'],
  })
  for (const refused of written.refused) process.stderr.write(`quill: not carried out: ${refused}\n`)
  const moved = written.moved > 0 ? `, ${written.moved} at new addresses (see redirects.csv)` : ''
  await print(
    `${plural(written.changed, 'file')} changed${moved}; ${values['changed-only'] ? 'they are' : 'the site is'} in ${values.out}\n`,
  )
  return 0
}
