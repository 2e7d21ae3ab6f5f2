import type { LedgerRow } from '../../../core/work/evaluate.ts'
import { Part, Row } from './head-parts.tsx'

/** What the server said with the page, or what little is known of it; nothing for a file. */
export function ServedPart({ row }: { row: LedgerRow }) {
  const { served, partial } = row
  if (!served && partial === null) return null
  return (
    <Part name="served" title="From the server">
      {partial === 'row' && (
        <p className="text-[13px] text-ink-2">
          This page is known from a sheet alone: what the sheet does not say is not judged. Take it in by its
          address or as a file to see the rest.
        </p>
      )}
      {served && (
        <>
          <Row label="Answered">
            <span className={served.status >= 400 ? 'font-semibold text-carmine' : ''}>
              {served.status}
              {served.status >= 400 ? ', an error' : ''} on {served.date}
            </span>
          </Row>
          {served.redirects.length > 0 && (
            <Row label="Redirected from">
              <ul>
                {served.redirects.map(({ url, status }, i) => (
                  <li key={i} className="font-mono text-[12.5px] break-all">
                    {url} <span className="font-sans text-ink-2">({status})</span>
                  </li>
                ))}
              </ul>
            </Row>
          )}
          {(served.contentType !== null || served.charset !== null) && (
            <Row label="Content type">
              <span>
                {served.contentType ?? 'not said'}
                {served.charset === null
                  ? ', no charset'
                  : `, charset ${served.charset}, which goes before the page’s own`}
              </span>
            </Row>
          )}
          {served.robots.length > 0 && (
            <Row label="X-Robots-Tag">
              <span className="font-mono text-[12.5px]">{served.robots.join('; ')}</span>
            </Row>
          )}
          {served.canonical !== null && (
            <Row label="Canonical, by header">
              <span className="font-mono text-[12.5px] break-all">{served.canonical}</span>
            </Row>
          )}
        </>
      )}
    </Part>
  )
}
