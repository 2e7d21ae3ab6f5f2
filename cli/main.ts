/** `quill`: the same core for the command line and for pipelines. Shapes and exit status: docs/command-line.md. */
import { print } from './output.ts'
import { Problem } from './problem.ts'

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

type Command = (args: string[]) => Promise<number>

/** Each is loaded when it is called. */
const commands = new Map<string, () => Promise<Command>>([
  ['audit', async () => (await import('./audit.ts')).audit],
  ['merge', async () => (await import('./audit.ts')).merge],
  ['apply', async () => (await import('./apply.ts')).apply],
  ['repair', async () => (await import('./repair.ts')).repair],
  ['hand-off', async () => (await import('./hand-off.ts')).handOff],
  ['check-data', async () => (await import('./check-data.ts')).checkData],
  ['keywords', async () => (await import('./keywords.ts')).keywords],
  ['line-up', async () => (await import('./line-up.ts')).lineUp],
  ['sitemap', async () => (await import('./sitemap.ts')).sitemap],
  ['progress', async () => (await import('./progress.ts')).progress],
  ['blocks', async () => (await import('./blocks.ts')).blocks],
  ['suggestions', async () => (await import('./suggestions.ts')).suggestions],
  ['rebase', async () => (await import('./rebase.ts')).rebase],
  ['measure', async () => (await import('./measure.ts')).measureCommand],
  ['vocabulary', async () => (await import('./vocabulary.ts')).vocabularyCommand],
])

async function main([command, ...args]: string[]): Promise<number> {
  const asksForHelp = [command, ...args].some((a) => a === '--help' || a === '-h') || command === 'help'
  if (command === undefined || asksForHelp) {
    await print(usage)
    return asksForHelp ? 0 : 2
  }
  const load = commands.get(command)
  if (!load)
    throw new Problem(`There is no command “${command}”; there are ${[...commands.keys()].join(', ')}.`)
  return (await load())(args)
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
