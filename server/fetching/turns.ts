/** Politeness: a host is asked two at a time, and not faster than it asks for. */

/** Requests to one host that are under way at the same time. Common practice, no source. */
const AT_ONCE = 2
/** A host that asks for longer pauses than this, in seconds, gets these. */
const LONGEST_PAUSE = 30

interface Host {
  underWay: number
  /** When the next request may begin, in ms. */
  free: number
  waiting: (() => void)[]
}

export interface Turns {
  /** Waits for the host's turn; `pause` is in seconds. What is answered gives the turn back, once, however often it is called. */
  take(host: string, pause: number, signal: AbortSignal | undefined): Promise<() => void>
}

export function createTurns(now: () => number = Date.now): Turns {
  const hosts = new Map<string, Host>()

  const leave = (name: string, host: Host) => {
    host.underWay--
    host.waiting.shift()?.()
    if (host.underWay === 0 && host.waiting.length === 0 && host.free <= now()) hosts.delete(name)
  }
  return {
    async take(name, pause, signal) {
      const host = hosts.get(name) ?? { underWay: 0, free: 0, waiting: [] }
      hosts.set(name, host)
      while (host.underWay >= AT_ONCE) await waitFor(host, signal)
      host.underWay++
      let given = false
      const giveBack = () => {
        if (!given) leave(name, host)
        given = true
      }
      try {
        const begins = Math.max(now(), host.free)
        host.free = begins + Math.min(pause, LONGEST_PAUSE) * 1000
        if (begins > now()) await sleep(begins - now(), signal)
      } catch (error) {
        giveBack()
        throw error
      }
      return giveBack
    },
  }
}

/** Until somebody gives a turn back; one who no longer waits takes none. */
function waitFor(host: Host, signal: AbortSignal | undefined): Promise<void> {
  signal?.throwIfAborted()
  return new Promise((resolve, reject) => {
    const go = () => {
      signal?.removeEventListener('abort', leave)
      resolve()
    }
    const leave = () => {
      host.waiting.splice(host.waiting.indexOf(go), 1)
      reject(signal!.reason as Error)
    }
    host.waiting.push(go)
    signal?.addEventListener('abort', leave, { once: true })
  })
}

function sleep(ms: number, signal: AbortSignal | undefined): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => {
      signal?.removeEventListener('abort', leave)
      resolve()
    }, ms)
    const leave = () => {
      clearTimeout(timer)
      reject(signal!.reason as Error)
    }
    signal?.addEventListener('abort', leave, { once: true })
  })
}
