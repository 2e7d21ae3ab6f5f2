import { Link } from 'react-router'
import type { Route } from './+types/intake'
import { ByAddress } from '../intake/by-address.tsx'
import { Masthead } from '../ui/masthead.tsx'

export const meta = () => [{ title: 'Intake by address · Keen Quill' }]

export const clientLoader = ({ request }: Route.ClientLoaderArgs) => ({
  address: new URL(request.url).searchParams.get('address') ?? '',
})
clientLoader.hydrate = true as const

export function HydrateFallback() {
  return (
    <>
      <Masthead />
      <p className="p-8 text-ink-2">Opening …</p>
    </>
  )
}

/** Taking a site in by its address. */
export default function Intake({ loaderData }: Route.ComponentProps) {
  const { address } = loaderData
  return (
    <>
      <Masthead>
        <Link to="/" className="hover:text-ink">
          Shelf
        </Link>
      </Masthead>
      <main className="mx-auto max-w-[1100px] px-8 py-9">
        <h1 className="font-serif text-[26px]">Intake by address</h1>
        <p className="mt-1 text-ink-2">
          Pages come as their server gives them. What is sent: the addresses that you ask for, to the sites that they
          are of, and nothing else.
        </p>
        <ByAddress key={address} address={address} />
      </main>
    </>
  )
}
