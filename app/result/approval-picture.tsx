import { toBlob } from 'html-to-image'
import { memo, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { ApprovalLineUp, ApprovalPage, Wording } from '../../core/exchange/approval.ts'
import { shownAddress } from '../../core/addresses/addresses.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { lineUpPlaces } from '../session/line-up-places.ts'
import type { Session } from '../session/session.ts'
import { Choice } from '../ui/choice.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { download } from '../ui/download.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { DrawnResult, ResultLines } from './drawn-result.tsx'

/** The page's result, before and after, as a picture to send to somebody. */
export const ApprovalPicture = memo(function ApprovalPicture({
  session,
  id,
  path,
}: {
  session: Session
  id: PageId
  path: string
}) {
  const [page, setPage] = useState<ApprovalPage | null>(null)
  const [shown, setShown] = useState<'result' | 'line-up'>('result')
  const card = useRef<HTMLDivElement>(null)
  const name = path.slice(path.lastIndexOf('/') + 1).replace(/\.\w+$/, '') || 'page'

  async function open() {
    await session.flush()
    const [found] = await core().approvalPages(
      [id],
      { [id]: session.decisionsOf(id) },
      Object.fromEntries(lineUpPlaces),
    )
    if (found) setPage(found)
  }
  async function picture(): Promise<Blob | null> {
    await document.fonts.ready
    return card.current && toBlob(card.current, { pixelRatio: 2, backgroundColor: '#fbf8f1' })
  }
  async function act(how: 'copy' | 'save') {
    try {
      const blob = await picture()
      if (!blob) throw new Error('empty')
      if (how === 'save')
        download(`${name}-for-approval.png`, new Uint8Array(await blob.arrayBuffer()), 'image/png')
      else await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })])
      toast(how === 'save' ? 'Saved as PNG.' : 'Copied as a picture.')
    } catch {
      toast.error(
        how === 'save'
          ? 'The picture could not be drawn. Try again.'
          : 'The browser did not allow the picture to be copied. Save it as PNG instead.',
      )
    }
  }

  return (
    <>
      <button
        type="button"
        className="quiet text-[13px]"
        onClick={() => void tell('The picture could not be made', open)}
      >
        Picture …
      </button>
      <Dialog
        open={page !== null}
        onOpenChange={(o) => !o && setPage(null)}
        title="A picture for approval"
        description="The result before and after, wide and narrow, with the takes."
        width={760}
      >
        {page && (
          <>
            <p className="mb-4 flex flex-wrap items-baseline gap-4">
              <button type="button" className="button button-main" onClick={() => void act('copy')}>
                Copy the picture
              </button>
              <button type="button" className="button" onClick={() => void act('save')}>
                Save as PNG
              </button>
              {page.lineUp && (
                <Choice
                  label="Drawn"
                  value={shown}
                  options={[
                    { value: 'result', name: 'alone' },
                    { value: 'line-up', name: `among the others for “${page.lineUp.phrase}”` },
                  ]}
                  onChange={(value) => setShown(value)}
                />
              )}
            </p>
            <div className="overflow-x-auto border border-rule">
              <div ref={card} data-testid="approval-card" data-theme="light" className="approval-card">
                {shown === 'line-up' && page.lineUp ? (
                  <>
                    <InLineUp heading="After" wording={page.after} lineUp={page.lineUp} page={page} />
                    <InLineUp heading="Before" wording={page.before} lineUp={page.lineUp} page={page} />
                  </>
                ) : (
                  <>
                    <Results heading="After" wording={page.after} page={page} />
                    <Results heading="Before" wording={page.before} page={page} faded />
                  </>
                )}
                {shown === 'result' && (page.takes.title.length > 0 || page.takes.description.length > 0) && (
                  <section>
                    <h3>Other wordings</h3>
                    {(['title', 'description'] as const).map((role) =>
                      page.takes[role].map((text) => (
                        <div key={text} className="result mb-2">
                          <ResultLines
                            screen="wide"
                            role={role}
                            text={text}
                            slots={page.slots}
                            lang={page.lang}
                          />
                        </div>
                      )),
                    )}
                  </section>
                )}
              </div>
            </div>
          </>
        )}
      </Dialog>
    </>
  )
})

/** The whole line-up, ours marked. */
function InLineUp({
  heading,
  wording,
  lineUp: { position, others, isToday, asOf },
  page,
}: {
  heading: string
  wording: Wording
  lineUp: ApprovalLineUp
  page: ApprovalPage
}) {
  const drawn = others.map((other) => ({
    key: other.url,
    isOurs: false,
    result: { ...other, trail: other.trail.length > 0 ? other.trail : shownAddress(other.url) },
  }))
  drawn.splice(position - 1, 0, {
    key: 'ours',
    isOurs: true,
    result: { ...wording, trail: shownAddress(wording.url) },
  })
  return (
    <section>
      <h3>
        {heading}: {isToday ? `at ${position}, as on ${asOf}` : `set at ${position}`}
      </h3>
      {drawn.map(({ key, isOurs, result }) => (
        <div key={key} className={`py-1.5 pl-3 ${isOurs ? 'border-l-2 border-quill bg-paper-2' : ''}`}>
          {isOurs && <p className="text-[12px] font-semibold">Ours</p>}
          <DrawnResult screen="wide" result={result} slots={page.slots} lang={page.lang} />
        </div>
      ))}
    </section>
  )
}

function Results({
  heading,
  wording,
  page,
  faded = false,
}: {
  heading: string
  wording: Wording
  page: ApprovalPage
  faded?: boolean
}) {
  return (
    <section className={faded ? 'faded' : ''}>
      <h3>{heading}</h3>
      {(['wide', 'narrow'] as const).map((screen) => (
        <DrawnResult
          key={screen}
          screen={screen}
          className={screen}
          result={{ ...wording, trail: shownAddress(wording.url) }}
          slots={page.slots}
          lang={page.lang}
        />
      ))}
    </section>
  )
}
