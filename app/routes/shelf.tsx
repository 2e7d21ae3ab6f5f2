import { useEffect, useRef, useState } from 'react'
import { Form, Link, useFetcher, useRevalidator } from 'react-router'
import { toast } from 'sonner'
import Joi from 'joi'
import type { Route } from './+types/shelf'
import { inventedWeb } from '../store/invented-web.ts'
import { demoWasSeeded, putDemoOnShelf, sweepShelf } from '../shelf/demo.ts'
import { EmptyShelf } from '../shelf/empty-shelf.tsx'
import { useOpenedFiles } from '../offline/opened-files.ts'
import { fromDrop, fromFiles, fromPicker, isSheet } from '../shelf/dropped.ts'
import { SheetDialog } from '../intake/sheet-dialog.tsx'
import { useLookAtAddress } from '../intake/look-at.ts'
import { InventedWeb } from '../shelf/invented-web.tsx'
import { IntakeDialog } from '../shelf/intake-dialog.tsx'
import { db, removeWholeSite, type SiteRecord } from '../store/db.ts'
import { saveProject } from '../session/save-project.ts'
import { closeSession } from '../session/session.ts'
import { UnsavedWork, type Unsaved } from '../shelf/unsaved-work.tsx'
import { inMegabytes, roomHere, unsavedSince } from '../store/room.ts'
import { Dialog } from '../ui/dialog.tsx'
import { Masthead } from '../ui/masthead.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import type { IntakeInput } from '../workers/open-input.ts'

export const meta = () => [{ title: 'Shelf · Keen Quill' }]

/** Whether this server was started to show the demo. */
export const loader = () => ({ demo: process.env.KEEN_QUILL_DEMO === '1' })

export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  // Without the server the shelf opens all the same.
  const { demo } = await serverLoader().catch(() => ({ demo: false }))
  await sweepShelf()
  const seed = demo && !(await demoWasSeeded())
  // A demo whose putting on the shelf was cut off is about to be replaced: nobody should open it before.
  const sites = await db.sites.filter((s) => s.status === 'ready' && !(seed && s.demo)).toArray()
  const since = await Promise.all(sites.map((site) => unsavedSince(site)))
  return {
    demo,
    web: await inventedWeb(),
    room: await roomHere(),
    unsaved: sites.flatMap((site, i): Unsaved[] => (since[i] ? [{ site, since: since[i] }] : [])),
    sites: sites.sort((a, b) => a.name.localeCompare(b.name)),
    seed,
  }
}
clientLoader.hydrate = true as const

const actionSchema = Joi.object({ intent: Joi.valid('remove', 'demo').required(), site: Joi.string().guid() })

export async function clientAction({ request }: Route.ClientActionArgs) {
  const { value, error } = actionSchema.validate(Object.fromEntries(await request.formData()))
  if (error) return { problem: error.message }
  if (value.intent === 'demo') return { problem: await putDemoOnShelf() }
  closeSession()
  await removeWholeSite(value.site)
  return { problem: null }
}

export function HydrateFallback() {
  return (
    <>
      <Masthead />
      <main className="mx-auto max-w-[1100px] px-8 py-10">
        <h1 className="font-serif text-[26px]">Shelf</h1>
        <p className="mt-2 text-ink-2">Opening the sites kept in this browser …</p>
      </main>
    </>
  )
}

export default function Shelf({ loaderData }: Route.ComponentProps) {
  const { sites, seed, web, unsaved, room } = loaderData as Awaited<ReturnType<typeof clientLoader>>
  const [input, setInput] = useState<IntakeInput | null>(null)
  const [sheet, setSheet] = useState<File | null>(null)
  const [pasting, setPasting] = useState(false)
  const [over, setOver] = useState(false)
  const folderInput = useRef<HTMLInputElement>(null)
  const fileInput = useRef<HTMLInputElement>(null)
  const demo = useFetcher<typeof clientAction>()
  const { revalidate } = useRevalidator()
  const submit = demo.submit
  useLookAtAddress()

  const asked = useRef(false)
  useEffect(() => {
    if (!seed || asked.current) return
    asked.current = true
    void submit({ intent: 'demo' }, { method: 'post' })
  }, [seed, submit])
  useEffect(() => {
    if (demo.state === 'idle' && demo.data?.problem) toast.error(demo.data.problem)
    if (demo.state === 'idle' && demo.data) void revalidate()
  }, [demo.state, demo.data, revalidate])

  const busy = demo.state !== 'idle' || (seed && !demo.data)
  const take = (picked: IntakeInput) => {
    if (picked.kind === 'page' && isSheet(picked.file)) setSheet(picked.file)
    else setInput(picked)
  }
  useOpenedFiles((files) => {
    const opened = fromFiles(files)
    if (opened) take(opened)
  })
  const pick = (list: FileList | null) => {
    const picked = list && fromPicker(list)
    if (picked) take(picked)
  }

  return (
    <>
      <Masthead>
        <Link to="/about" className="hover:text-ink">
          About
        </Link>
      </Masthead>
      <main className="mx-auto max-w-[1100px] px-8 py-9">
        <div className="flex items-baseline gap-4">
          <h1 className="font-serif text-[26px]">Shelf</h1>
          <p className="font-serif text-[15px] text-ink-2 italic">the sites kept in this browser</p>
        </div>

        <section
          aria-label="Take pages in"
          onDragOver={(e) => {
            e.preventDefault()
            setOver(true)
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(e) => {
            e.preventDefault()
            setOver(false)
            void fromDrop(e.dataTransfer).then((dropped) => dropped && take(dropped))
          }}
          className={`sheet mt-5 border-dashed px-8 py-7 ${over ? 'border-quill bg-quill-soft' : ''}`}
        >
          <h2 className="font-serif text-[19px]">Intake: take a site’s pages in</h2>
          <Form action="/intake" className="mt-3 flex items-stretch gap-3 max-[700px]:flex-wrap">
            <label className="flex min-w-0 flex-1 items-center gap-3 max-[700px]:basis-full max-[700px]:flex-wrap max-[700px]:gap-y-1">
              <span className="font-semibold whitespace-nowrap">By its address</span>
              <input
                name="address"
                className="field font-mono text-[13px]"
                placeholder="https://www.site.example/"
                required
                maxLength={2000}
              />
            </label>
            <button type="submit" className="button button-main">
              Look at it …
            </button>
          </Form>
          <p className="mt-4 text-ink-2">
            Or drop a folder of HTML here, a ZIP archive, a single page, a sheet of pages (CSV, XLSX, ODS), or
            a project file. Up to 5,000 pages or 500 MB.
          </p>
          <div className="mt-4 flex flex-wrap gap-3">
            <button type="button" className="button" onClick={() => folderInput.current?.click()}>
              Choose a folder …
            </button>
            <button type="button" className="button" onClick={() => fileInput.current?.click()}>
              Choose a ZIP, a page or a sheet …
            </button>
            <button type="button" className="button" onClick={() => setPasting(true)}>
              Paste a page’s source …
            </button>
          </div>
          <input
            ref={(node) => {
              folderInput.current = node
              node?.setAttribute('webkitdirectory', '')
            }}
            type="file"
            hidden
            aria-label="Folder of pages"
            data-testid="folder-input"
            onChange={(e) => {
              pick(e.target.files)
              e.target.value = ''
            }}
          />
          <input
            ref={fileInput}
            type="file"
            hidden
            aria-label="ZIP or page"
            data-testid="file-input"
            accept=".zip,.html,.htm,.xhtml,.csv,.tsv,.xlsx,.ods"
            onChange={(e) => {
              pick(e.target.files)
              e.target.value = ''
            }}
          />
        </section>

        <UnsavedWork unsaved={unsaved} onSaved={() => void revalidate()} />
        {sites.length === 0 ? (
          <div className="mt-8">
            <p className="font-serif text-[17px]">
              {busy ? 'Putting the demo site on the shelf …' : 'The shelf is empty.'}
            </p>
            {!busy && <EmptyShelf onDemo={() => void submit({ intent: 'demo' }, { method: 'post' })} />}
          </div>
        ) : (
          <ul className="mt-7">
            {sites.map((site) => (
              <SiteOnShelf
                key={site.id}
                site={site}
                onSaved={() => void revalidate()}
                onReset={() => void submit({ intent: 'demo' }, { method: 'post' })}
                busy={busy}
              />
            ))}
          </ul>
        )}
        <footer className="mt-8 border-t border-rule pt-4 text-[13px] text-ink-2">
          <p>
            Pages, and all work on them, stay in this browser. What is sent: the addresses that you ask for,
            to the sites that they are of.{' '}
            <Link to="/about" className="quiet">
              More on that
            </Link>
          </p>
          {room && (
            <p className="mt-1" data-testid="room">
              Kept so far: {inMegabytes(room.used)}; this browser has room for about {inMegabytes(room.left)}{' '}
              more.
            </p>
          )}
          {loaderData.demo && <InventedWeb state={web} />}
        </footer>
      </main>
      {sheet && <SheetDialog file={sheet} onClose={() => setSheet(null)} />}
      {input && <IntakeDialog input={input} onClose={() => setInput(null)} />}
      <PasteDialog
        open={pasting}
        onOpenChange={setPasting}
        onPaste={(html) => {
          setPasting(false)
          setInput({ kind: 'paste', html })
        }}
      />
    </>
  )
}

function SiteOnShelf({
  site,
  onReset,
  onSaved,
  busy,
}: {
  site: SiteRecord
  onReset(): void
  onSaved(): void
  busy: boolean
}) {
  const remove = useFetcher()
  const [sure, setSure] = useState(false)
  return (
    <li className="flex items-baseline gap-6 border-t border-rule py-4 max-[700px]:flex-wrap max-[700px]:gap-y-1">
      <div className="min-w-0 flex-1 max-[700px]:basis-full">
        <Link
          to={`/sites/${site.id}/ledger?view=left`}
          className="font-serif text-[19px] font-semibold hover:underline"
        >
          {site.name}
        </Link>
        <p className="truncate text-[13px] text-ink-2">
          {site.from?.by === 'page' ? 'pages looked at by their address' : site.base} ·{' '}
          {plural(site.pages, 'page')}
          {site.bytes !== undefined && `, ${inMegabytes(site.bytes)}`} · taken in {site.takenIn}
          {site.unread.length > 0 && ` · ${plural(site.unread.length, 'file')} not read`}
        </p>
      </div>
      <Link to={`/sites/${site.id}/ledger?view=left`} className="action">
        Open the ledger
      </Link>
      <button
        type="button"
        className="quiet"
        onClick={() =>
          tell('The project file could not be made', async () => {
            await saveProject(site)
            onSaved()
          })
        }
      >
        Project file
      </button>
      {site.demo && (
        <button type="button" className="quiet" disabled={busy} onClick={onReset}>
          {busy ? 'Resetting …' : 'Reset the demo'}
        </button>
      )}
      <button type="button" className="quiet" onClick={() => setSure(true)}>
        Remove from the shelf
      </button>
      <Dialog
        open={sure}
        onOpenChange={setSure}
        title={`Remove “${site.name}” from the shelf?`}
        description="Its pages, and all work on them, will be deleted from this browser. Save a project file first if you may want them back."
      >
        <remove.Form method="post" className="flex gap-3" onSubmit={() => setSure(false)}>
          <input type="hidden" name="site" value={site.id} />
          <button type="submit" name="intent" value="remove" className="button button-main">
            Remove it
          </button>
          <button type="button" className="button" onClick={() => setSure(false)}>
            Keep it
          </button>
        </remove.Form>
      </Dialog>
    </li>
  )
}

function PasteDialog({
  open,
  onOpenChange,
  onPaste,
}: {
  open: boolean
  onOpenChange(open: boolean): void
  onPaste(html: string): void
}) {
  const [html, setHtml] = useState('')
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Paste a page’s source"
      description="The whole of it, from the doctype to the end, as “view source” shows it."
      width={720}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onPaste(html)
          setHtml('')
        }}
      >
        <textarea
          className="field h-64 font-mono text-[12px]"
          aria-label="The page’s source"
          spellCheck={false}
          value={html}
          onChange={(e) => setHtml(e.target.value)}
        />
        <button type="submit" className="button button-main mt-4" disabled={html.trim() === ''}>
          Take the page in
        </button>
      </form>
    </Dialog>
  )
}
