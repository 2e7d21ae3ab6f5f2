/** What goes with the files: the sitemap, redirects as servers take them, addresses to be crawled, a covering note. */
import { Popover } from 'radix-ui'
import { writeZip } from '../../core/exchange/zip.ts'
import type { Session } from '../session/session.ts'
import { download, fileName } from '../ui/download.ts'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'

export function ListsToHandOff({
  name,
  session,
  redirects,
}: {
  name: string
  session: Session
  redirects: number
}) {
  const entries: { label: string; what: string; make(): Promise<void> }[] = [
    {
      label: 'Sitemap',
      what: 'sitemap.xml of every page that is shown in results, dated where it changed',
      async make() {
        const files = await core().sitemapNow()
        if (files.length === 1) return download('sitemap.xml', files[0]!.text, 'application/xml')
        if (files.length === 0) throw new Error('No page of this site is shown in results.')
        const bytes = files.map(({ path, text }): [string, Uint8Array] => [
          path,
          new TextEncoder().encode(text),
        ])
        download(fileName(name, '-sitemaps.zip'), writeZip(bytes), 'application/zip')
      },
    },
    {
      label: 'Addresses to be crawled',
      what: 'what changed or moved, one address a line, to submit to search engines',
      async make() {
        download(fileName(name, '-to-be-crawled.txt'), await core().crawlList(), 'text/plain')
      },
    },
    {
      label: 'Covering note',
      what: 'what changed, how much and why, in words',
      async make() {
        const note = await core().coveringNote()
        if (note) download(fileName(name, '-covering-note.txt'), note, 'text/plain')
      },
    },
    ...(redirects > 0
      ? [
          {
            label: `${plural(redirects, 'redirect')} as .htaccess`,
            what: 'for the site’s root folder on a server that reads such files',
            async make() {
              download('.htaccess', (await core().serverRedirects()).htaccess, 'text/plain')
            },
          },
          {
            label: `${plural(redirects, 'redirect')} as a map`,
            what: 'for a server that is configured with map; its first lines say how',
            async make() {
              download('redirects.map.conf', (await core().serverRedirects()).map, 'text/plain')
            },
          },
        ]
      : []),
  ]
  return (
    <Popover.Root>
      <Popover.Trigger className="button">Lists and notes …</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="sheet z-30 w-96 p-4 text-[13px]" sideOffset={6} align="start">
          <h2 className="font-serif text-[17px]">To go with the files</h2>
          <ul className="mt-1">
            {entries.map(({ label, what, make }) => (
              <li key={label} className="border-b border-rule-2 py-1.5 last:border-b-0">
                <Popover.Close
                  className="action"
                  onClick={() =>
                    tell(`${label} could not be made`, async () => {
                      await session.flush()
                      await make()
                    })
                  }
                >
                  {label}
                </Popover.Close>
                <span className="block text-ink-3">{what}</span>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
