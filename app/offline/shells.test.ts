import { describe, expect, it } from 'vitest'
import routes from '../routes.ts'
import { shellAddresses, shellOf, type BuiltRoute } from './shells.ts'

/** The application's routes as the build's manifest lists them: flat, each with its parent. */
function listed(of: typeof routes, parentId = 'root'): BuiltRoute[] {
  return of.flatMap((route) => [
    { id: route.file, parentId, path: route.path, hasDefaultExport: route.file.endsWith('.tsx') },
    ...listed(route.children ?? [], route.file),
  ])
}
const built: BuiltRoute[] = [{ id: 'root', path: '', hasDefaultExport: true }, ...listed(routes)]

describe('shells', () => {
  const shells = shellAddresses(built)
  it('are one of each view, none of a service, none of what does not exist', () => {
    expect(shells).toContain('/')
    expect(shells).toContain('/intake')
    expect(shells).toContain('/sites/any')
    expect(shells).toContain('/sites/any/desk')
    expect(shells).not.toContain('/demand')
    expect(shells.join()).not.toMatch(/[*:]/)
    expect(new Set(shells).size).toBe(shells.length)
  })
  it('open every address of their view, and no other', () => {
    const known = new Set(shells)
    expect(shellOf('/', known)).toBe('/')
    expect(shellOf('/sites/0198-ab', known)).toBe('/sites/any')
    expect(shellOf('/sites/0198-ab/desk/', known)).toBe('/sites/any/desk')
    expect(shellOf('/sites/0198-ab/nowhere', known)).toBeNull()
    expect(shellOf('/stand-ins/site.zip', known)).toBeNull()
    expect(shellOf('/sites/a/desk/desk', known)).toBeNull()
  })
})
