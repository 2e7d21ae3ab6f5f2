import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { supervised, WorkerStopped, type Watched } from './supervised.ts'

interface Api {
  echo(text: string): Promise<string>
}

/** Workers under test: each answers, or never does. */
function workers(...answering: boolean[]) {
  const started: { ended: boolean; died(why: string): void; made: string[] }[] = []
  const said: string[] = []
  const api = supervised<Api>(
    (): Watched<Api> => {
      const answers = answering[started.length] ?? true
      const own = { ended: false, died: (_: string) => {}, made: [] as string[] }
      started.push(own)
      const reply = <T>(value: T) => (answers ? Promise.resolve(value) : new Promise<T>(() => {}))
      return {
        api: {
          echo: (text) => {
            own.made.push(text)
            return reply(text)
          },
        },
        ping: () => reply(true),
        end: () => void (own.ended = true),
        onDeath: (died) => void (own.died = died),
      }
    },
    {
      ready: (fresh) => fresh.echo('made ready'),
      onStop: (why) => void said.push(why),
      watch: { every: 1000, most: 3 },
    },
  )
  return { api, started, said }
}

describe('supervised', () => {
  beforeEach(() => void vi.useFakeTimers())
  afterEach(() => void vi.useRealTimers())

  it('passes calls on, and leaves a worker that answers alone', async () => {
    const { api, started, said } = workers(true)
    expect(await api.echo('a')).toBe('a')
    await vi.advanceTimersByTimeAsync(60_000)
    expect(await api.echo('b')).toBe('b')
    expect([started.length, said]).toEqual([1, []])
    expect(vi.getTimerCount()).toBeLessThanOrEqual(1)
  })
  it('ends a worker that does not answer, says so, and makes the next one ready before it is asked', async () => {
    const { api, started, said } = workers(false, true)
    const first = api.echo('a').catch((error: unknown) => error)
    await vi.advanceTimersByTimeAsync(3000)
    expect(said).toEqual([])
    await vi.advanceTimersByTimeAsync(1000)
    expect(await first).toBeInstanceOf(WorkerStopped)
    expect(said).toEqual(['It did not answer for 3 seconds.'])
    expect(started[0]!.ended).toBe(true)
    expect(await api.echo('b')).toBe('b')
    expect(started[1]!.made).toEqual(['made ready', 'b'])
  })
  it('starts another when one dies, and rejects what was asked of the dead one', async () => {
    const { api, started, said } = workers(false, true)
    const asked = [api.echo('a'), api.echo('b')].map((p) => p.catch((error: Error) => error.message))
    started[0]!.died('It broke (out of memory).')
    expect(await Promise.all(asked)).toEqual(Array(2).fill('It broke (out of memory).'))
    expect(await api.echo('c')).toBe('c')
    expect([started.length, said.length]).toEqual([2, 1])
    // What comes late from a worker that is gone is not believed.
    started[0]!.died('again')
    expect([started[1]!.ended, said.length]).toEqual([false, 1])
  })
  it('counts looks, not clocks: a worker that answers between two looks is not stuck', async () => {
    const { api, said } = workers(true)
    const open = api.echo('a')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(await open).toBe('a')
    expect(said).toEqual([])
  })
})
