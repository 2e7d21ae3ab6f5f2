import { randomBytes } from 'node:crypto'
import { PassThrough } from 'node:stream'
import { createReadableStreamFromReadable } from '@react-router/node'
import { isbot } from 'isbot'
import { renderToPipeableStream } from 'react-dom/server'
import { ServerRouter, type EntryContext } from 'react-router'
import { NonceContext } from './nonce.ts'

export const streamTimeout = 5_000

/** Nothing is loaded from elsewhere, nothing inline runs without the nonce, and no page may frame the application. */
function contentSecurityPolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    // A page that is looked at brings its own fonts as data.
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
}

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  const nonce = randomBytes(16).toString('base64')
  return new Promise((resolve, reject) => {
    let answered = false
    const waitForAll = isbot(request.headers.get('user-agent') ?? '')
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={context} url={request.url} nonce={nonce} />
      </NonceContext>,
      {
        nonce,
        [waitForAll ? 'onAllReady' : 'onShellReady']() {
          answered = true
          const body = new PassThrough()
          headers.set('content-type', 'text/html; charset=utf-8')
          headers.set('content-security-policy', contentSecurityPolicy(nonce))
          resolve(new Response(createReadableStreamFromReadable(body), { headers, status }))
          pipe(body)
        },
        onShellError: reject,
        onError(error: unknown) {
          status = 500
          if (answered) console.error(error)
        },
      },
    )
    setTimeout(abort, streamTimeout + 1000).unref()
  })
}
