import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, type RefObject } from 'react';
import type { Cell, MatrixRow } from './cells.ts';

/** About how high a row is, in pixels; each is measured once it is drawn. */
const ROW_HEIGHT = 54;
/** The head of the table stays over the rows. */
const HEAD_HEIGHT = 26;
/** So many rows beyond what is seen are drawn. */
const BEYOND = 6;

interface DrawnRows {
  drawn: { index: number; row: MatrixRow }[];
  /** The room of the rows before and after those, in pixels. */
  above: number;
  below: number;
  measure: (row: HTMLElement | null) => void;
}

/** The rows of a long matrix that are near what is looked at. The row of the cell in focus is brought into sight. */
export function useDrawnRows(rows: MatrixRow[], cell: Cell | null, scroller: RefObject<HTMLElement | null>): DrawnRows {
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: BEYOND,
    scrollPaddingStart: HEAD_HEIGHT,
    getItemKey: (index) => rows[index]!.line.id,
    initialRect: { width: 0, height: 800 },
  });
  const at = rows.findIndex((row) => row.line.id === cell?.line);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  const items = virtual.getVirtualItems();
  return {
    drawn: items.map(({ index }) => ({ index, row: rows[index]! })),
    above: items[0]?.start ?? 0,
    below: virtual.getTotalSize() - (items.at(-1)?.end ?? 0),
    measure: virtual.measureElement,
  };
}
