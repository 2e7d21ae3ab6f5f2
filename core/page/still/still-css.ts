/** A style sheet of a still page: it asks for nothing; its own files stand in it as data. */
import { generate, ident, parse, walk, type CssNode, type List, type ListItem } from 'css-tree'
import { resolveAddress } from '../../addresses/addresses.ts'
import type { StillFiles } from './still-files.ts'

/** Characters of all sheets of a page together; sheets that import others, so deep. */
const MOST_CSS = 2_000_000
const DEEPEST_IMPORT = 3

const NOTHING = 'data:,'
/** Functions that fetch, but for `url` as it is usually written; and text in which one may stand, with escapes or without. */
const fetching = /^(?:url|src|image|image-set|-webkit-image-set|cross-fade|-webkit-cross-fade)$/i
const fetches = /url\s*\(|image(?:-set)?\s*\(|cross-fade\s*\(|src\s*\(|\\/i

export interface Sheets {
  files: StillFiles
  /** Characters so far. */
  length: number
  /** Addresses of images and fonts that the sheets name, each once. */
  named: Map<string, 'image' | 'font'>
}
export const noSheets = (files: StillFiles): Sheets => ({ files, length: 0, named: new Map() })

/** A sheet with the addresses in it answered, ready to stand in a style element; "" for one that cannot be read. Never throws. */
export async function stillCss(css: string, from: string, sheets: Sheets, depth = 0): Promise<string> {
  sheets.length += css.length
  if (sheets.length > MOST_CSS || depth > DEEPEST_IMPORT) return ''
  try {
    const sheet = parse(css, { parseCustomProperty: false, onParseError: () => {} })
    const imported = await takeImports(sheet, from, sheets, depth)
    await answerAddresses(sheet, from, sheets)
    // An end tag within a string would end the style element; CSS reads the escape as the same letter.
    return imported + generate(sheet).replace(/<\//g, '<\\/').replace(/<!--/g, '<\\!--')
  } catch {
    return ''
  }
}

/** The sheets that this one imports, which go before it. */
async function takeImports(sheet: CssNode, from: string, sheets: Sheets, depth: number): Promise<string> {
  const imports: { url: string; media: string }[] = []
  walk(sheet, {
    visit: 'Atrule',
    enter(rule, item, list) {
      // A name may be written with escapes.
      if (ident.decode(rule.name).toLowerCase() !== 'import') return
      const [address, ...rest] = rule.prelude?.type === 'AtrulePrelude' ? rule.prelude.children.toArray() : []
      if (address?.type === 'Url' || address?.type === 'String') {
        const url = resolveAddress(address.value, from)
        if (url !== null) imports.push({ url, media: rest.map((node) => generate(node)).join(' ') })
      }
      ;(list as List<CssNode>).remove(item)
    },
  })
  let all = ''
  for (const { url, media } of imports) {
    const file = await sheets.files.file(url)
    if (!file) continue
    const css = await stillCss(new TextDecoder().decode(file.bytes), url, sheets, depth + 1)
    // A layer or a condition that is more than media is not looked into.
    all +=
      media === ''
        ? css
        : /^[\w\s(),:.-]+$/.test(media) && !/layer|supports/i.test(media)
          ? `@media ${media}{${css}}`
          : ''
  }
  return all
}

async function answerAddresses(sheet: CssNode, from: string, sheets: Sheets): Promise<void> {
  const urls: { node: { value: string }; kind: 'image' | 'font' }[] = []
  walk(sheet, {
    enter(
      this: { atrule?: { name: string } | null },
      node: CssNode,
      item: ListItem<CssNode>,
      list: List<CssNode> | null,
    ) {
      if (node.type === 'Url')
        urls.push({ node, kind: this.atrule?.name.toLowerCase() === 'font-face' ? 'font' : 'image' })
      // What was not read by its parts may fetch by them.
      else if (node.type === 'Raw' && fetches.test(node.value)) node.value = ' '
      else if (node.type === 'Function' && fetching.test(ident.decode(node.name))) list?.remove(item)
    },
  })
  for (const { node, kind } of urls) {
    if (
      /^data:image\/(?:png|jpeg|gif|webp|svg\+xml)[;,]/i.test(node.value) ||
      /^data:font\//i.test(node.value)
    )
      continue
    if (node.value.startsWith('#')) continue
    const url = resolveAddress(node.value, from)
    if (url !== null) sheets.named.set(url, kind)
    node.value = (await sheets.files.data(url)) ?? NOTHING
  }
}

/** A style attribute, its addresses answered; "" for one that cannot be read. Never throws. */
export async function stillStyle(style: string, from: string, sheets: Sheets): Promise<string> {
  try {
    const list = parse(style, {
      context: 'declarationList',
      parseCustomProperty: false,
      onParseError: () => {},
    })
    await answerAddresses(list, from, sheets)
    return generate(list)
  } catch {
    return ''
  }
}
