import { redirect } from 'react-router'
import type { Route } from './+types/site-index'

export const loader = ({ params }: Route.LoaderArgs) => redirect(`/sites/${params.siteId}/ledger`)
export default function SiteIndex() {
  return null
}
