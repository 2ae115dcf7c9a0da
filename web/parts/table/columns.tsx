import {
  columnResizingFeature,
  columnSizingFeature,
  createSortedRowModel,
  rowSelectionFeature,
  rowSortingFeature,
  sortFn_basic,
  tableFeatures,
  type ColumnDef,
  type Header as HeaderOf,
  type Row as RowOf,
  type RowData,
} from '@tanstack/react-table';

/** What a column says of itself beside its heading, its cell and its width. */
interface ColumnSays {
  /** Figures stand at the right. */
  right?: true;
  /** Its cell is the link of a row that leads somewhere. */
  leads?: true;
  /** The heading is only heard. */
  unseen?: true;
  /** On a narrow screen a row is a block of two columns; this one goes below the others, or is left out. */
  narrow?: 'below' | 'out';
  className?: string;
}

/** What tables of the application can do: their columns be sized, their rows sorted and chosen. */
export const FEATURES = tableFeatures({
  columnSizingFeature,
  columnResizingFeature,
  rowSelectionFeature,
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic },
  columnMeta: {} as ColumnSays,
});

/** A column: its `header`, its `cell`, its `size` in pixels (none: what is left). One with an `accessorFn` can be sorted by. */
export type Column<Row extends RowData> = ColumnDef<typeof FEATURES, Row>;
export type Header<Row extends RowData> = HeaderOf<typeof FEATURES, Row>;
export type Row<Data extends RowData> = RowOf<typeof FEATURES, Data>;

/** Whether a column has a width of its own; the package gives every other one the same, which is not wanted. */
export const isSized = (column: { columnDef: { size?: number } }): boolean => column.columnDef.size !== USUALLY.size;
/** What columns are that say no more of themselves: sorted from the least on, whatever their values are. */
export const USUALLY = { size: 0, sortFn: 'basic', sortDescFirst: false } as const;

/** The box that chooses a row, where it may be chosen. */
export const CHOOSE: Column<RowData> = {
  id: 'choose',
  header: 'Chosen',
  size: 44,
  enableResizing: false,
  meta: { unseen: true },
  cell: ({ row }) =>
    row.getCanSelect() && (
      <input
        type="checkbox"
        className="checkbox checkbox-sm relative z-1 block"
        aria-label={`Choose ${row.id}`}
        tabIndex={-1}
        checked={row.getIsSelected()}
        onChange={row.getToggleSelectedHandler()}
      />
    ),
};
