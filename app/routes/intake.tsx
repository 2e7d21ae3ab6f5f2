import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Route } from './+types/intake'
import { AgainFromFiles } from '../intake/again-files.tsx'
import { ByAddress, type Again } from '../intake/by-address.tsx'
import { firstAsked } from '../intake/question-form.tsx'
import { closeSession, settled } from '../session/session.ts'
import { today } from '../session/today.ts'
import { db, type SiteRecord } from '../store/db.ts'
import { Masthead } from '../ui/masthead.tsx'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'
import type { Progress } from '../workers/intake.ts'

export const meta = () => [{ title: 'Intake · Keen Quill' }]

/** What is shared to the application often has its address within a text. */
const addressIn = (text: string): string => /https?:\/\/\S{1,2000}/.exec(text)?.[0] ?? ''

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const asked = new URL(request.url).searchParams
  const again = asked.get('again')
  return {
    address: asked.get('address') || addressIn(asked.get('text') ?? ''),
    again: again === null ? null : ((await db.sites.get(again)) ?? null),
  }
}
clientLoader.hydrate = true as const

export function HydrateFallback() {
  return (
    <>
      <Masthead />
      <p className="p-8 text-ink-2">Opening …</p>
    </>
  )
}

/** Taking a site in by its address, for the first time or again. */
export default function Intake({ loaderData }: Route.ComponentProps) {
  const { address, again } = loaderData
  return (
    <>
      <Masthead>
        <Link to="/" className="hover:text-ink">
          Shelf
        </Link>
      </Masthead>
      <main className="mx-auto max-w-[1100px] px-8 py-9">
        <h1 className="font-serif text-[26px]">
          {again ? `Take “${again.name}” in again` : 'Intake by address'}
        </h1>
        <p className="mt-1 text-ink-2">
          {again
            ? 'What was decided is matched to the pages as they are now: you see what is live, what is still to do, and what somebody else changed. All of it can be undone in one step.'
            : 'Pages come as their server gives them. What is sent: the addresses that you ask for, to the sites that they are of, and nothing else.'}
        </p>
        {again ? <TakeAgain site={again} /> : <ByAddress key={address} address={address} />}
      </main>
    </>
  )
}

function TakeAgain({ site }: { site: SiteRecord }) {
  const navigate = useNavigate()
  const [progress, setProgress] = useState<Progress | null>(null)
  const { from } = site
  const asked =
    from?.by === 'address'
      ? {
          ...firstAsked(from.start),
          how: from.how,
          most: from.most,
          path: from.path,
          leaveOut: from.leftOut.join('\n'),
          queries: from.queries,
        }
      : firstAsked(from?.by === 'page' ? '' : site.base)
  async function take(ticket: number): Promise<string> {
    await settled()
    setProgress({ done: 0, of: 0, now: '' })
    try {
      const taken = await reported(setProgress, (report) =>
        core().takeAgain(ticket, site.id, today(), report),
      )
      if (!taken.ok) throw new Error(taken.why)
      closeSession()
      return `/sites/${taken.site.id}/taken-again`
    } finally {
      setProgress(null)
    }
  }
  const again: Again = { name: site.name, asked, take }
  return (
    <>
      {progress && (
        <p role="status" className="mt-6 text-ink-2">
          Comparing with the time before: {progress.done.toLocaleString('en')} of{' '}
          {progress.of.toLocaleString('en')} …
        </p>
      )}
      <div hidden={progress !== null}>
        <ByAddress address={asked.address} again={again} />
        <AgainFromFiles onTake={async (ticket) => void navigate(await take(ticket))} />
      </div>
    </>
  )
}
