import { Link } from 'react-router'

export const meta = () => [{ title: 'Page not found · Keen Quill' }]
export const loader = () => new Response(null, { status: 404 })

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-16">
      <h1 className="font-serif text-[26px]">Page not found</h1>
      <p className="mt-3">
        <Link className="action" to="/">
          Go to the shelf, where your sites are
        </Link>
      </p>
    </main>
  )
}
