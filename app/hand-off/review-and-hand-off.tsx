/** The two views of one section: what is looked at before it goes out, and what goes out. */
import { useNavigate, useParams } from 'react-router'
import { ViewsNav } from '../ui/views-nav.tsx'

const views = { review: 'Review', 'hand-off': 'Hand-off' } as const

export function ReviewAndHandOff({ now }: { now: keyof typeof views }) {
  const navigate = useNavigate()
  const { siteId } = useParams()
  return (
    <ViewsNav
      label="Review and hand-off"
      views={views}
      now={now}
      onChoose={(view) => void navigate(`/sites/${siteId}/${view}`)}
    />
  )
}
