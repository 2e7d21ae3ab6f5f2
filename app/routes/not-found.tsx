import { Link } from 'react-router'

export const meta = () => [{ title: 'No such page · Keen Quill' }]
export const loader = () => new Response(null, { status: 404 })

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-16">
      <h1 className="font-serif text-[26px]">There is no such page here</h1>
      <p className="mt-3">
        <Link className="action" to="/">
          To the shelf, where your sites are
        </Link>
      </p>
    </main>
  )
}
