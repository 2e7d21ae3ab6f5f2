import { expose, wrap } from 'comlink'
import { expect, test } from 'vitest'
import { reported } from './reported.ts'

const work = {
  async count(to: number, report: (done: number) => void): Promise<string> {
    for (let done = 1; done <= to; done++) await report(done)
    return 'counted'
  },
}

test('reports are heard while a worker is asked, through real ports', async () => {
  const { port1, port2 } = new MessageChannel()
  expose(work, port1)
  const asked = wrap<typeof work>(port2)
  const heard: number[] = []
  expect(
    await reported(
      (done: number) => heard.push(done),
      (report) => asked.count(3, report),
    ),
  ).toBe('counted')
  expect(heard).toEqual([1, 2, 3])
  port1.close()
  port2.close()
})

test('a report that comes after the answer is not heard, nor one after a failure', async () => {
  const heard: number[] = []
  let late = (_done: number) => {}
  const ask = (answer: Promise<string>) =>
    reported(
      (done: number) => heard.push(done),
      (report) => {
        late = report
        report(1)
        return answer
      },
    )
  await ask(Promise.resolve('there'))
  late(2)
  expect(heard).toEqual([1])
  await expect(ask(Promise.reject(new Error('stopped')))).rejects.toThrow('stopped')
  late(3)
  expect(heard).toEqual([1, 1])
})
