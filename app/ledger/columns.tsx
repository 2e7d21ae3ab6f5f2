/** The columns of the ledger: what each is called, how wide it is, what its cells say, what it sorts by, and whether they can be edited. */
import { createColumnHelper, tableFeatures } from '@tanstack/react-table'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import { stateOf, takesOf, type Decisions, type LedgerColumnChoice } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Figures } from '../../core/progress/statistics.ts'
import { inWords } from '../../core/structured-data/words.ts'
import { shownPath } from '../ui/shown-path.ts'
import {
  Counts,
  DescriptionCell,
  H1Cell,
  KeywordCell,
  StateCell,
  TakesCell,
  TitleCell,
  WidthState,
} from './cells.tsx'
import type { LedgerField } from './edit-cell.tsx'
import type { SiteMarkCount } from './order.ts'

/** A line of the ledger: a page's row with what is decided for it and what the site's marks say of it. */
export interface LedgerLine {
  row: LedgerRow
  decisions: Decisions
  siteMarks: SiteMarkCount | undefined
  /** Pages that link to it; null where nobody asked. */
  linksIn: number | null
  /** Its four last weeks in results; null where nothing is known, or nobody asked. */
  figures: Figures | null
  style: HouseStyle
  onOpen(path: string): void
}

export interface LedgerColumn {
  id: string
  name: string
  /** px; at least, where it takes what is left. */
  width: number
  takesRest?: true
  className: string
  field?: LedgerField
  cell(line: LedgerLine): React.ReactNode
  /** What it is sorted by, and written out as. */
  value(line: LedgerLine): string | number
}

const small = 'min-w-0 text-[13px] text-ink-2'
const typed = (line: LedgerLine, field: 'title' | 'description') => line.row[field] ?? ''
const weight = ({ row, siteMarks }: LedgerLine) =>
  (row.blocker + (siteMarks?.blocker ?? 0)) * 1e6 +
  (row.flaw + (siteMarks?.flaw ?? 0)) * 1e3 +
  row.nit +
  (siteMarks?.nit ?? 0)
/** A column of numbers; a cell of which nothing is known is empty, and comes first when they rise. */
const number = (
  id: string,
  name: string,
  value: (line: LedgerLine) => number | null,
  digits = 0,
): LedgerColumn => ({
  id,
  name,
  width: 76,
  className: 'text-right text-[13px] text-ink-2 tabular-nums',
  cell: (line) =>
    value(line)?.toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits }) ?? '',
  value: (line) => value(line) ?? '',
})
const words = (
  id: string,
  name: string,
  width: number,
  value: (line: LedgerLine) => string,
): LedgerColumn => ({
  id,
  name,
  width,
  className: `${small} truncate`,
  cell: (line) => <span title={value(line)}>{value(line)}</span>,
  value,
})

/** All there are, in the order in which they are offered. */
export const ledgerColumns: LedgerColumn[] = [
  {
    id: 'page',
    name: 'Page',
    width: 148,
    className: 'min-w-0',
    cell: ({ row, onOpen }) => (
      <button
        type="button"
        tabIndex={-1}
        className="w-full truncate text-left text-[13px] text-quill hover:underline"
        title={row.url}
        onClick={() => onOpen(row.path)}
      >
        {shownPath(row)}
      </button>
    ),
    value: ({ row }) => row.path,
  },
  {
    id: 'title',
    name: 'Title',
    width: 330,
    className: 'min-w-0',
    field: 'title',
    cell: ({ row, decisions, style }) => (
      <TitleCell row={row} decisions={decisions} column={styleFor(style, row.url).slots.title.wide.column} />
    ),
    value: (line) => typed(line, 'title'),
  },
  {
    id: 'description',
    name: 'Description',
    width: 150,
    takesRest: true,
    className: small,
    field: 'meta:description',
    cell: ({ row, decisions }) => <DescriptionCell row={row} decisions={decisions} />,
    value: (line) => typed(line, 'description'),
  },
  {
    id: 'width',
    name: 'Width',
    width: 64,
    className: 'text-[13px]',
    cell: ({ row }) => <WidthState row={row} />,
    value: ({ row }) => Math.round(row.titlePx),
  },
  {
    id: 'keyword',
    name: 'Keyword',
    width: 138,
    className: 'min-w-0 text-[13px]',
    field: 'keyword:primary',
    cell: ({ row, decisions, style }) => (
      <KeywordCell row={row} decisions={decisions} leadWords={styleFor(style, row.url).limits.leadWords} />
    ),
    value: ({ decisions }) => (decisions['keyword:primary'] as string | undefined) ?? '',
  },
  {
    id: 'h1',
    name: 'H1',
    width: 82,
    className: 'line-clamp-2 self-start text-[13px] text-ink-2',
    cell: ({ row }) => <H1Cell row={row} />,
    value: ({ row }) => row.h1 ?? '',
  },
  {
    id: 'takes',
    name: 'Takes',
    width: 40,
    className: 'text-[13px] text-ink-2',
    cell: ({ decisions }) => <TakesCell decisions={decisions} />,
    value: ({ decisions }) => takesOf(decisions, 'title').length + takesOf(decisions, 'description').length,
  },
  {
    id: 'marks',
    name: 'Marks',
    width: 58,
    className: '',
    cell: ({ row, siteMarks }) => <Counts row={row} site={siteMarks} />,
    value: weight,
  },
  {
    id: 'state',
    name: 'State',
    width: 78,
    className: small,
    cell: ({ decisions }) => <StateCell decisions={decisions} />,
    value: ({ decisions }) => stateOf(decisions),
  },
  words('address', 'Address', 220, ({ row }) => row.url),
  words('canonical', 'Canonical', 180, ({ row }) => row.canonical ?? ''),
  words('robots', 'Robots', 110, ({ row }) => row.robots),
  words('language', 'Language', 72, ({ row }) => row.lang ?? ''),
  words('described', 'Things described', 150, ({ row }) => row.types.map(inWords).join(', ')),
  number('words', 'Words', ({ row }) => row.words),
  number('images', 'Images', ({ row }) => row.images),
  number('without-alt', 'Without alt', ({ row }) => row.imagesWithoutAlt),
  number('links-in', 'Links in', ({ linksIn }) => linksIn ?? 0),
  number('clicks', 'Clicks', ({ figures }) => figures?.clicks ?? null),
  number('position', 'Position', ({ figures }) => figures?.position ?? null, 1),
]
const byId = new Map(ledgerColumns.map((column) => [column.id, column]))

/** What an editor sees who has chosen nothing. */
const USUAL = ['page', 'title', 'description', 'width', 'keyword', 'h1', 'takes', 'marks', 'state']
export const usualColumns: LedgerColumnChoice[] = USUAL.map((id) => ({ id, width: null }))

/** The columns that are shown, in their order; the page stands first whatever was chosen. */
export function columnsShown(chosen: readonly LedgerColumnChoice[]): LedgerColumn[] {
  const shown = chosen.flatMap(({ id, width }) => {
    const column = byId.get(id)
    return column ? [width === null ? column : { ...column, width, takesRest: undefined }] : []
  })
  const page = shown.find(({ id }) => id === 'page') ?? byId.get('page')!
  return [page, ...shown.filter(({ id }) => id !== 'page')] as LedgerColumn[]
}
export const columnById = (id: string): LedgerColumn | null => byId.get(id) ?? null

/** Tracks of a CSS grid, and how wide all of them are at least, in px. */
export function tracksOf(shown: readonly LedgerColumn[]): { tracks: string; least: number } {
  const rest = shown.some((column) => column.takesRest)
  return {
    tracks: [
      '18px',
      ...shown.map(({ width, takesRest }, i) =>
        takesRest || (!rest && i === shown.length - 1) ? `minmax(${width}px, 1fr)` : `${width}px`,
      ),
    ].join(' '),
    least: shown.reduce((sum, { width }) => sum + width + GAP, 18) + 24,
  }
}
const GAP = 14

/** Order, filters and selection are the ledger's own; the table keeps columns and lines. */
export const features = tableFeatures({})
const helper = createColumnHelper<typeof features, LedgerLine>()
export const tableColumns = (shown: readonly LedgerColumn[]) =>
  helper.columns(
    shown.map(({ id, name, cell }) =>
      helper.display({ id, header: name, cell: ({ row: { original } }) => cell(original) }),
    ),
  )
