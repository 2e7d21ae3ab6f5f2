import { redirect } from 'react-router'
import type { Route } from './+types/site-index'

export const clientLoader = ({ params }: Route.ClientLoaderArgs) => redirect(`/sites/${params.siteId}/ledger`)
clientLoader.hydrate = true as const

export default function SiteIndex() {
  return null
}
