/** The page as a browser draws it at one width, in a frame in which nothing runs and which asks for nothing. */
import { useRef, useState } from 'react'
import { layoutFindings, type LayoutFindings } from './layout-findings.ts'

/** How high a screen is while the page is laid out, in px: what is as high as the screen is measured by it. */
const SCREEN = { phone: 844, wide: 800 }
/** What is drawn of a page at most, in px. */
const MOST_HEIGHT = 8_000
/** Phones draw a page that does not say otherwise so wide, and shrink it. Common practice, no source. */
const UNSAID_WIDTH = 980

export type Screen = 'phone' | 'wide'
export const screenWidths = { phone: 390, wide: 1280 } as const

export function StillFrame({
  html,
  fitsScreen,
  screen,
  room,
  startName,
  onFindings,
}: {
  html: string
  fitsScreen: boolean
  screen: Screen
  /** How wide it may stand here, in px. */
  room: number
  startName: string
  onFindings(findings: LayoutFindings): void
}) {
  const frame = useRef<HTMLIFrameElement>(null)
  const [height, setHeight] = useState<number>(SCREEN[screen])
  const width = screenWidths[screen]
  const laidOut = screen === 'phone' && !fitsScreen ? UNSAID_WIDTH : width
  const shrink = width / laidOut
  // The phone at its true size; a wide screen as wide as there is room.
  const scale = Math.min(1, room / width) * shrink
  return (
    <div
      className="overflow-auto border border-rule bg-white"
      style={{ width: laidOut * scale, height: 480, colorScheme: 'light' }}
      tabIndex={0}
      role="region"
      aria-label={`The page at ${width.toLocaleString('en')} px`}
    >
      <div style={{ height: height * scale, overflow: 'hidden' }}>
        <iframe
          ref={frame}
          title={`The page at ${width.toLocaleString('en')} px`}
          data-testid="still"
          // Never scripts: the page is somebody else's. That it is of our origin lets its layout be read.
          sandbox="allow-same-origin"
          srcDoc={html}
          tabIndex={-1}
          inert
          style={{
            width: laidOut,
            height,
            border: 0,
            transform: `scale(${scale})`,
            transformOrigin: 'top left',
            pointerEvents: 'none',
          }}
          onLoad={() => {
            const page = frame.current?.contentDocument
            if (!page?.body) return
            onFindings(layoutFindings(page, laidOut, shrink, startName))
            setHeight(Math.min(MOST_HEIGHT, Math.max(SCREEN[screen], page.documentElement.scrollHeight)))
          }}
        />
      </div>
    </div>
  )
}
