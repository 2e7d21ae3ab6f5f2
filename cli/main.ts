/** `quill`: the same core for the command line and for pipelines. Shapes and exit status: docs/command-line.md. */
import { apply } from './apply.ts'
import { audit, merge } from './audit.ts'
import { blocks } from './blocks.ts'
import { checkData } from './check-data.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { repair } from './repair.ts'
import { handOff } from './hand-off.ts'
import { keywords } from './keywords.ts'
import { lineUp } from './line-up.ts'
import { measureCommand } from './measure.ts'
import { progress } from './progress.ts'
import { rebase } from './rebase.ts'
import { sitemap } from './sitemap.ts'
import { suggestions } from './suggestions.ts'
import { vocabularyCommand } from './vocabulary.ts'

const usage = `quill audit PATH… [--base-url URL] [--keywords FILE.csv] [--style FILE.json] [--date YYYY-MM-DD] [--html] [--limit N] [--jobs N | --shard I/N [--out PART]] [--format text|json|csv]
  PATH may also be the address of a page or a sitemap
quill merge PART… [--format text|json|csv]
quill apply PATH [--changes FILE.csv] [--edits FILE.json] --out DIR [--base-url URL]
quill repair PATH --out DIR [--rules ID,ID…] [--base-url URL] [--style FILE.json] [--date YYYY-MM-DD] [--format text|json]
quill hand-off PROJECT --out DIR [--changed-only] [--date YYYY-MM-DD]
quill check-data FILE… [--base-url URL] [--date YYYY-MM-DD] [--format text|json]
quill keywords PATH [--keywords FILE.csv] [--phrases FILE.csv] [--base-url URL] [--format text|json]
quill line-up --results FILE.json --title T --description D --url U [--position N] [--phrase P] [--language L]
quill sitemap PATH --base-url URL [--date YYYY-MM-DD] [--out FILE]
quill progress --statistics FILE.csv --changes FILE.csv [--weeks N] [--format text|json]
quill blocks FILE [--format text|json]
quill suggestions PATH --sheet FILE [--base-url URL] [--format text|json]
quill rebase OLD NEW --edits FILE.json [--format text|json]
quill measure [--as title|description] [TEXT…]
quill vocabulary TYPE|PROPERTY [--format text|json]
`

const commands = new Map<string, (args: string[]) => Promise<number>>([
  ['audit', audit],
  ['merge', merge],
  ['apply', apply],
  ['repair', repair],
  ['hand-off', handOff],
  ['check-data', checkData],
  ['keywords', keywords],
  ['line-up', lineUp],
  ['sitemap', sitemap],
  ['progress', progress],
  ['blocks', blocks],
  ['suggestions', suggestions],
  ['rebase', rebase],
  ['measure', measureCommand],
  ['vocabulary', vocabularyCommand],
])

async function main([command, ...args]: string[]): Promise<number> {
  const asksForHelp = [command, ...args].some((a) => a === '--help' || a === '-h') || command === 'help'
  if (command === undefined || asksForHelp) {
    await print(usage)
    return asksForHelp ? 0 : 2
  }
  const run = commands.get(command)
  if (!run)
    throw new Problem(`There is no command “${command}”; there are ${[...commands.keys()].join(', ')}.`)
  return run(args)
}

main(process.argv.slice(2)).then(
  (status) => (process.exitCode = status),
  (error: unknown) => {
    const known =
      error instanceof Problem ||
      (error instanceof TypeError && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS'))
    process.stderr.write(
      known
        ? `quill: ${(error as Error).message.split('\n')[0]}\n`
        : `quill: this should not happen; please report it.\n${(error as Error).stack}\n`,
    )
    process.exitCode = 2
  },
)
