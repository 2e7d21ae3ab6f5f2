import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { openZip, safePath, writeZip } from './zip.ts'

const bytes = (text: string) => new TextEncoder().encode(text)

describe('ZIP archives', () => {
  it('come out and in again with the same files', () => {
    const files: [string, Uint8Array][] = [
      ['index.html', bytes('<p>a')],
      ['img/lamp.png', bytes('\x89PNG')],
      ['ø/å.html', bytes('x')],
    ]
    const opened = openZip(writeZip(files))
    if (!opened.ok) throw new Error(opened.why)
    expect(opened.zip.paths.sort()).toEqual(files.map(([p]) => p).sort())
    expect([...opened.zip.read(opened.zip.paths).files.entries()].sort()).toEqual([...files].sort())
  })
  it('keep out paths that climb, are absolute, or name a drive; the rest is taken in', () => {
    const opened = openZip(
      zipSync({
        '../evil.html': bytes('x'),
        '/etc/x.html': bytes('x'),
        'c:\\x.html': bytes('x'),
        'a/../../b.html': bytes('x'),
        'good.html': bytes('x'),
      }),
    )
    if (!opened.ok) throw new Error(opened.why)
    expect(opened.zip.paths).toEqual(['good.html'])
    expect(opened.zip.refused).toHaveLength(4)
    expect(opened.zip.refused[0]!.why).toMatch(/leads out/)
  })
  it('leave out a file that swells beyond measure, and take the rest', () => {
    const opened = openZip(
      zipSync({ 'bomb.html': new Uint8Array(30 * 1024 * 1024), 'good.html': bytes('x') }, { level: 9 }),
    )
    if (!opened.ok) throw new Error(opened.why)
    expect(opened.zip.paths).toEqual(['good.html'])
    expect(opened.zip.refused[0]).toMatchObject({ path: 'bomb.html', why: expect.stringMatching(/30 MB/) })
  })
  it('are refused as a whole when damaged, too large or too many', () => {
    expect(openZip(bytes('PK no archive'))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/not a ZIP/),
    })
    const three = zipSync({ a: bytes('aaaa'), b: bytes('bbbb'), c: bytes('cccc') })
    expect(openZip(three, { entries: 2, total: 1e9, ratio: 200 })).toMatchObject({ ok: false })
    expect(openZip(three, { entries: 9, total: 5, ratio: 200 })).toMatchObject({ ok: false })
  })
  it('name a damaged file and read the others', () => {
    const archive = zipSync({ 'a.html': bytes('a'.repeat(500)), 'b.html': bytes('b'.repeat(500)) })
    const at = archive.indexOf(0x61, 30 + 6) // within the first file's packed data
    archive.fill(0xff, at, at + 4)
    const opened = openZip(archive)
    if (!opened.ok) throw new Error(opened.why)
    const { files, failed } = opened.zip.read(['a.html', 'b.html'])
    expect(new TextDecoder().decode(files.get('b.html'))).toBe('b'.repeat(500))
    expect(failed.map((f) => f.path)).toEqual(['a.html'])
  })
  it('fold paths to one form', () => {
    expect(safePath('./a//b.html')).toBe('a/b.html')
    expect(safePath('..')).toBeNull()
  })
})
