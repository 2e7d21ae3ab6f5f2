import { useEffect } from 'react'
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useLocation,
} from 'react-router'
import { Toaster } from 'sonner'
import type { Route } from './+types/root'
import { useNonce } from './nonce.ts'
import { GuidePanel } from './help/guide-panel.tsx'
import { Offline } from './offline/offline.tsx'
import { KeysHelp } from './ui/keys-help.tsx'
import { Palette } from './ui/palette.tsx'
import './app.css'

export const links: Route.LinksFunction = () => [
  { rel: 'icon', href: '/quill.svg', type: 'image/svg+xml' },
  { rel: 'manifest', href: '/keen-quill.webmanifest' },
]

/** Light or dark as chosen before, set before the first paint. */
const themeScript = `try{var t=localStorage.getItem('keen-quill-theme');if(t)document.documentElement.dataset.theme=t}catch{}`

export function Layout({ children }: { children: React.ReactNode }) {
  const nonce = useNonce()
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links nonce={nonce} />
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: themeScript }} />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  )
}

export default function App() {
  const { key } = useLocation()
  // End-to-end tests wait for these before they touch anything: the view of this location is drawn.
  useEffect(() => {
    document.documentElement.dataset.hydrated = 'true'
    document.documentElement.dataset.drawn = key
  }, [key])
  return (
    <>
      <Offline />
      <Outlet />
      <Palette />
      <KeysHelp />
      <GuidePanel />
      <Toaster position="bottom-center" toastOptions={{ className: 'toast' }} />
    </>
  )
}

export function HydrateFallback() {
  return <p className="p-6 text-ink-2">Opening …</p>
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error)
  return (
    <main className="mx-auto max-w-2xl p-12">
      <h1 className="font-serif text-[26px]">
        {known ? `${error.status} ${error.statusText}` : 'Something went wrong'}
      </h1>
      <p className="mt-3 text-ink-2">
        {known
          ? String(error.data ?? '')
          : 'Your work is kept in this browser. Reload the page. If it happens again, save the project file from the shelf and report the text below.'}
      </p>
      {!known && error instanceof Error && (
        <pre className="mt-4 overflow-auto bg-paper-2 p-3 text-xs">{error.stack}</pre>
      )}
      <p className="mt-4">
        <a className="action" href="/">
          Go to the shelf
        </a>
      </p>
    </main>
  )
}
