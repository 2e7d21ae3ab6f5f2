/**
 * A page to look at: as a browser draws it, and nothing in it runs, asks or leads anywhere. Its own style sheets and images
 * stand in it as data. It is written anew from the tree, what is known to be harmless and nothing else, under a policy of
 * its own that fetches nothing; the frame that shows it must not run scripts either.
 */
import { resolveAddress } from '../../addresses/addresses.ts'
import { isForScreens, isStyleSheet } from '../read/collect/resources.ts'
import { attribute, HTML, isElement, parsedSource, type Element, type Node } from '../read/parse.ts'
import type { Source } from '../source/source.ts'
import { noSheets, stillCss, stillStyle, type Sheets } from './still-css.ts'
import { StillFiles, type FileAt } from './still-files.ts'

export interface StillPage {
  html: string
  /** Whether the page says that it fits the width of the screen; phones draw others as wide as a desk's screen and shrink them. */
  fitsScreen: boolean
  /** Addresses of files that it names and the site does not have. */
  absent: string[]
  /** Files that were too much to be shown. */
  left: string[]
  /** Images and fonts that its style sheets name. */
  inSheets: { url: string; kind: 'image' | 'font' }[]
}

/** Each element says where its tag stands in the page, in UTF-16 units. */
export const START = 'data-quill-start'

const POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; font-src data:"

/** Dropped with all that is in them. */
const dropped = new Set([
  ...[
    'script',
    'noscript',
    'template',
    'iframe',
    'frame',
    'frameset',
    'noframes',
    'object',
    'embed',
    'applet',
    'portal',
  ],
  ...[
    'base',
    'meta',
    'link',
    'title',
    'source',
    'track',
    'param',
    'fencedframe',
    'noembed',
    'xmp',
    'plaintext',
  ],
  ...[
    'use',
    'image',
    'feimage',
    'foreignobject',
    'animate',
    'animatemotion',
    'animatetransform',
    'set',
    'handler',
    'listener',
  ],
])
/** Attributes that lay out, name or describe; those that fetch, lead or run are not among them. */
const kept =
  /^(?:class|id|lang|dir|title|alt|role|hidden|open|width|height|align|valign|bgcolor|color|face|size|border|cellpadding|cellspacing|colspan|rowspan|span|scope|nowrap|type|value|placeholder|rows|cols|wrap|disabled|checked|selected|multiple|readonly|required|min|max|step|start|reversed|label|for|name|tabindex|contenteditable|controls|media|clear|hspace|vspace|noshade|compact|low|high|optimum|aria-[a-z]+)$/
const keptInDrawings =
  /^(?:class|id|viewbox|width|height|x|y|x1|x2|y1|y2|cx|cy|r|rx|ry|d|points|transform|fill|stroke|opacity|offset|preserveaspectratio|text-anchor|dx|dy|(?:fill|stroke|stop|font)-[a-z-]+|gradientunits|gradienttransform|clip-rule|role|aria-[a-z]+)$/
const voids = new Set(['area', 'br', 'col', 'hr', 'img', 'input', 'wbr'])
/** Browsers nest no deeper. From memory. */
const DEEPEST = 512
/** Beyond so many elements the page is shown in part. */
const MOST_ELEMENTS = 50_000

const escapeText = (text: string): string =>
  text.replace(/[&<>\0]/g, (c) => (c === '&' ? '&amp;' : c === '<' ? '&lt;' : c === '>' ? '&gt;' : ''))
const escapeAttribute = (value: string): string =>
  value.replace(/[&"<>\0]/g, (c) =>
    c === '&' ? '&amp;' : c === '"' ? '&quot;' : c === '<' ? '&lt;' : c === '>' ? '&gt;' : '',
  )

/** Never throws on what a page says; `fileAt` may. */
export async function stillPage(source: Source, address: string, fileAt: FileAt): Promise<StillPage> {
  const { document, doctypeEnd } = parsedSource(source)
  const files = new StillFiles(fileAt)
  const writer = new Writer(files, address)
  writer.out.push(
    doctypeEnd > 0 ? '<!doctype html>' : '',
    `<html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="${POLICY}">`,
  )
  await writer.walk(document.childNodes)
  return {
    html: writer.out.join(''),
    fitsScreen: writer.fitsScreen,
    absent: [...files.absent],
    left: [...files.left],
    inSheets: [...writer.sheets.named].map(([url, kind]) => ({ url, kind })),
  }
}

class Writer {
  readonly out: string[] = []
  readonly sheets: Sheets
  fitsScreen = false
  private from: string
  private readonly address: string
  private elements = 0

  constructor(files: StillFiles, address: string) {
    this.sheets = noSheets(files)
    this.address = this.from = address
  }

  /** By a stack of its own: pages nest deeper than the call stack does. */
  async walk(roots: readonly Node[]): Promise<void> {
    const open: { nodes: readonly Node[]; next: number; close: string }[] = [
      { nodes: roots, next: 0, close: '' },
    ]
    while (open.length > 0) {
      const at = open[open.length - 1]!
      const node = at.nodes[at.next++]
      if (node === undefined) {
        this.out.push(at.close)
        open.pop()
      } else if (node.nodeName === '#text') this.out.push(escapeText((node as { value: string }).value))
      else if (isElement(node)) {
        const close = await this.begin(node)
        if (close !== null && open.length < DEEPEST) open.push({ nodes: node.childNodes, next: 0, close })
        else if (close !== null) this.out.push(close)
      }
    }
  }

  /** Writes an element's start; returns its end, or null where nothing of it is shown or nothing stands in it. */
  private async begin(node: Element): Promise<string | null> {
    const tag = node.tagName.toLowerCase()
    if (tag === 'html' || tag === 'head' || tag === 'body') return this.beginPart(node, tag)
    if (tag === 'meta' || tag === 'base') this.readHead(node, tag)
    if (tag === 'link' || tag === 'style') return this.style(node, tag)
    if (dropped.has(tag) || !/^[a-z][a-z0-9-]*$/.test(tag) || ++this.elements > MOST_ELEMENTS) return null
    // Names of drawings keep their capitals.
    const name = node.namespaceURI === HTML ? tag : node.tagName
    this.out.push(`<${name}${await this.attributes(node, tag)}>`)
    return node.namespaceURI === HTML && voids.has(tag) ? null : `</${name}>`
  }

  /** The head is written already; what stands in it follows, and the body's attributes with the body. */
  private async beginPart(node: Element, tag: string): Promise<string> {
    if (tag === 'body') this.out.push(`</head><body${await this.attributes(node, tag)}>`)
    else if (tag === 'html') {
      const attributes = await this.attributes(node, tag)
      this.out[1] = this.out[1]!.replace('<html>', () => `<html${attributes}>`)
    }
    return ''
  }

  private readHead(node: Element, tag: string): void {
    if (tag === 'base') {
      const href = attribute(node, 'href')
      if (href !== null && this.from === this.address)
        this.from = resolveAddress(href, this.address) ?? this.from
    } else if (attribute(node, 'name')?.trim().toLowerCase() === 'viewport')
      this.fitsScreen ||= /device-width|initial-scale/i.test(attribute(node, 'content') ?? '')
  }

  /** A style element, or a link to a sheet as one. */
  private async style(node: Element, tag: string): Promise<null> {
    const media = attribute(node, 'media') ?? ''
    if (node.namespaceURI === HTML && !isForScreens(media)) return null
    let css = ''
    if (tag === 'style') {
      const text = node.childNodes.map((child) => ('value' in child ? child.value : '')).join('')
      css = await stillCss(text, this.from, this.sheets)
    } else if (isStyleSheet((attribute(node, 'rel') ?? '').toLowerCase().split(/\s+/).join(' '))) {
      const url = resolveAddress(attribute(node, 'href') ?? '', this.from)
      const file = await this.sheets.files.file(url)
      if (file && url !== null) css = await stillCss(new TextDecoder().decode(file.bytes), url, this.sheets)
    }
    if (css !== '')
      this.out.push(`<style${media === '' ? '' : ` media="${escapeAttribute(media)}"`}>${css}</style>`)
    return null
  }

  private async attributes(node: Element, tag: string): Promise<string> {
    const isHtml = node.namespaceURI === HTML
    let written = node.place ? ` ${START}="${node.place.start}"` : ''
    for (const { name, value } of node.attrs) {
      const lower = name.toLowerCase()
      if (lower === 'style') {
        const style = await stillStyle(value, this.from, this.sheets)
        if (style !== '') written += ` style="${escapeAttribute(style)}"`
      } else if (isHtml && lower === 'href' && (tag === 'a' || tag === 'area')) written += ' href="#"'
      else if (isHtml && lower === 'src' && (tag === 'img' || tag === 'input')) {
        const data = /^data:image\/(?:png|jpeg|gif|webp|svg\+xml)[;,]/i.test(value.trim())
          ? value.trim()
          : await this.sheets.files.data(value.trim() === '' ? null : resolveAddress(value.trim(), this.from))
        if (data !== null) written += ` src="${escapeAttribute(data)}"`
      } else if (isHtml ? kept.test(lower) : keptInDrawings.test(lower) && !/url\s*\(|\\/i.test(value))
        // A type that sends is drawn as it is; there is nothing that it could send.
        written += ` ${isHtml ? lower : name}="${escapeAttribute(value)}"`
    }
    return written
  }
}
