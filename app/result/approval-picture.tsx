import { toBlob } from 'html-to-image'
import { useRef, useState } from 'react'
import { toast } from 'sonner'
import type { ApprovalPage, Wording } from '../../core/exchange/approval.ts'
import { shownAddress } from '../../core/addresses/addresses.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { Dialog } from '../ui/dialog.tsx'
import { download } from '../ui/download.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { DrawnResult, ResultLines } from './drawn-result.tsx'

/** The page's result, before and after, as a picture to send to somebody. */
export function ApprovalPicture({ session, row }: { session: Session; row: LedgerRow }) {
  const [page, setPage] = useState<ApprovalPage | null>(null)
  const card = useRef<HTMLDivElement>(null)
  const name = row.path.slice(row.path.lastIndexOf('/') + 1).replace(/\.\w+$/, '') || 'page'

  async function open() {
    await session.flush()
    const [found] = await core().approvalPages([row.id], {
      [row.id]: session.decisionsOf(row.id),
    })
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
            <p className="mb-4 flex gap-4">
              <button type="button" className="button button-main" onClick={() => void act('copy')}>
                Copy the picture
              </button>
              <button type="button" className="button" onClick={() => void act('save')}>
                Save as PNG
              </button>
            </p>
            <div className="overflow-x-auto border border-rule">
              <div ref={card} data-testid="approval-card" data-theme="light" className="approval-card">
                <Results heading="After" wording={page.after} page={page} />
                <Results heading="Before" wording={page.before} page={page} faded />
                {(page.takes.title.length > 0 || page.takes.description.length > 0) && (
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
