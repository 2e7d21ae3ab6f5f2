/** The columns of the ledger: what each is called, how wide it is, what its cells say, and whether they can be edited. */
import { createColumnHelper, tableFeatures } from '@tanstack/react-table'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
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
  style: HouseStyle
  onOpen(path: string): void
}

/** Order, filters and selection are the ledger's own; the table keeps columns and lines. */
export const features = tableFeatures({})
const column = createColumnHelper<typeof features, LedgerLine>()

/** Widths are tracks of a CSS grid. */
interface LedgerColumn {
  width: string
  className: string
  field?: LedgerField
}
export const layout: Record<string, LedgerColumn> = {
  page: { width: '148px', className: '' },
  title: { width: '330px', className: 'min-w-0', field: 'title' },
  description: {
    width: 'minmax(150px, 1fr)',
    className: 'min-w-0 text-[13px] text-ink-2',
    field: 'meta:description',
  },
  width: { width: '64px', className: 'text-[13px]' },
  keyword: { width: '138px', className: 'min-w-0 text-[13px]', field: 'keyword:primary' },
  h1: { width: '82px', className: 'line-clamp-2 self-start text-[13px] text-ink-2' },
  takes: { width: '40px', className: 'text-[13px] text-ink-2' },
  marks: { width: '58px', className: '' },
  state: { width: '78px', className: 'min-w-0 text-[13px] text-ink-2' },
}

export const columns = column.columns([
  column.display({
    id: 'page',
    header: 'Page',
    cell: ({ row: { original } }) => (
      <button
        type="button"
        tabIndex={-1}
        className="w-full truncate text-left text-[13px] text-quill hover:underline"
        title={original.row.url}
        onClick={() => original.onOpen(original.row.path)}
      >
        {shownPath(original.row)}
      </button>
    ),
  }),
  column.display({
    id: 'title',
    header: 'Title',
    cell: ({ row: { original } }) => (
      <TitleCell
        row={original.row}
        decisions={original.decisions}
        column={styleFor(original.style, original.row.url).slots.title.wide.column}
      />
    ),
  }),
  column.display({
    id: 'description',
    header: 'Description',
    cell: ({ row: { original } }) => <DescriptionCell row={original.row} decisions={original.decisions} />,
  }),
  column.display({
    id: 'width',
    header: 'Width',
    cell: ({ row: { original } }) => <WidthState row={original.row} />,
  }),
  column.display({
    id: 'keyword',
    header: 'Keyword',
    cell: ({ row: { original } }) => (
      <KeywordCell
        row={original.row}
        decisions={original.decisions}
        leadWords={styleFor(original.style, original.row.url).limits.leadWords}
      />
    ),
  }),
  column.display({
    id: 'h1',
    header: 'H1',
    cell: ({ row: { original } }) => <H1Cell row={original.row} />,
  }),
  column.display({
    id: 'takes',
    header: 'Takes',
    cell: ({ row: { original } }) => <TakesCell decisions={original.decisions} />,
  }),
  column.display({
    id: 'marks',
    header: 'Marks',
    cell: ({ row: { original } }) => <Counts row={original.row} site={original.siteMarks} />,
  }),
  column.display({
    id: 'state',
    header: 'State',
    cell: ({ row: { original } }) => <StateCell decisions={original.decisions} />,
  }),
])
