/** The order of the folders is held: code that breaks it is named, by the same configuration that the linter uses. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { cruise, type ICruiseOptions, type ICruiseResult } from 'dependency-cruiser'
import { afterEach, describe, expect, it } from 'vitest'
import config from '../../.dependency-cruiser.mjs'

let folder: string | null = null
afterEach(() => {
  if (folder) rmSync(folder, { recursive: true })
})

/** The names of the rules that a few files break. */
async function broken(files: Record<string, string>): Promise<string[]> {
  folder = mkdtempSync(join(tmpdir(), 'import-order-'))
  for (const [path, code] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true })
    writeFileSync(join(folder, path), code)
  }
  const { tsConfig: _, ...options } = config.options!
  const { output } = await cruise(['.'], {
    ...options,
    baseDir: folder,
    ruleSet: { forbidden: config.forbidden },
    validate: true,
  } as ICruiseOptions)
  return [...new Set((output as ICruiseResult).summary.violations.map((v) => v.rule.name))].sort()
}
const imports = (...paths: string[]) =>
  paths.map((path, i) => `import { x as x${i} } from '${path}'\n`).join('') + 'export const x = 1\n'

describe('the order of imports', () => {
  it('is kept by files that import what comes before them', async () => {
    expect(
      await broken({
        'core/measure/width.ts': imports(),
        'core/rules/rule.ts': imports('../measure/width.ts'),
        'app/ui/tell.ts': imports('../../core/rules/rule.ts'),
      }),
    ).toEqual([])
  })
  it('is broken by a folder of core that imports a later one', async () => {
    expect(
      await broken({
        'core/measure/width.ts': imports('../rules/rule.ts'),
        'core/rules/rule.ts': imports(),
      }),
    ).toEqual(['core/measure imports only what comes before it'])
  })
  it('is broken by a store that knows the desk, and by core that knows the application', async () => {
    expect(
      await broken({
        'app/store/db.ts': imports('../desk/page-list.ts'),
        'app/desk/page-list.ts': imports(),
        'core/page/proof.ts': imports('../../app/desk/page-list.ts'),
      }),
    ).toEqual(['app/store imports only what comes before it', 'core stands alone'])
  })
  it('is broken by a circle of files, and of folders', async () => {
    expect(
      await broken({
        'server/a.ts': imports('./b.ts'),
        'server/b.ts': imports('./a.ts'),
        'tests/one/a.ts': imports('../two/b.ts'),
        'tests/two/b.ts': imports(),
        'tests/two/c.ts': imports('../one/d.ts'),
        'tests/one/d.ts': imports(),
      }),
    ).toEqual(['no circle of files', 'no circle of folders'])
  })
})
