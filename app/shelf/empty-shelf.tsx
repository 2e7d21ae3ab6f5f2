/** What to begin with when no site is on the shelf: one line for each thing that one may have in hand. */

const ways: [string, string][] = [
  [
    'An address',
    'Type it above. You see which pages there are before anything is taken in. If the site has a sitemap, it is read.',
  ],
  [
    'A folder or a ZIP',
    'Drop it above. Your changes come back as the same files, with only what you changed changed.',
  ],
  [
    'A sheet',
    'Drop a CSV, XLSX or ODS with addresses and titles. Titles and descriptions can be written without the pages.',
  ],
  ['A consultant’s suggestions', 'Take the site in first; then choose “Suggestions” above its ledger.'],
  ['A colleague’s project file', 'Drop it above: the site comes with all the work on it.'],
]

export function EmptyShelf({ onDemo }: { onDemo(): void }) {
  return (
    <>
      <p className="mt-1 text-ink-2">What do you have in hand?</p>
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-6 gap-y-2 max-[700px]:grid-cols-1 max-[700px]:gap-y-0">
        {ways.map(([what, how]) => (
          <div key={what} className="contents">
            <dt className="font-serif text-[16px]">{what}</dt>
            <dd className="text-ink-2 max-[700px]:mb-2">{how}</dd>
          </div>
        ))}
        <div className="contents">
          <dt className="font-serif text-[16px]">Nothing yet</dt>
          <dd className="text-ink-2">
            <button type="button" className="action" onClick={onDemo}>
              Put the demo site on the shelf
            </button>{' '}
            to look around: an invented island lighthouse with the mistakes that editors meet.
          </dd>
        </div>
      </dl>
    </>
  )
}
