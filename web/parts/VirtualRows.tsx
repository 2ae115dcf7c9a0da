import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';

interface VirtualRowsProps<T> {
  label: string;
  items: readonly T[];
  keyOf: (item: T) => string;
  /** About how high a row is, in pixels; each is measured once it is drawn. */
  height: number;
  classOf?: (item: T) => string;
  children: (item: T) => ReactNode;
}

/** A list of which only the rows near the window are drawn: there may be thousands. How many there are stays known to all. */
export function VirtualRows<T>({ label, items, keyOf, height, classOf, children }: VirtualRowsProps<T>) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => setTop(list.current?.offsetTop ?? 0), [items.length]);
  const rows = useWindowVirtualizer({
    count: items.length,
    estimateSize: () => height,
    overscan: 12,
    scrollMargin: top,
    getItemKey: (i) => keyOf(items[i]!),
  });
  return (
    <ul
      ref={list}
      aria-label={label}
      className="relative rounded-box border border-base-300 bg-base-100"
      style={{ height: rows.getTotalSize() + 2 }}
    >
      {rows.getVirtualItems().map((row) => (
        <li
          key={row.key}
          data-index={row.index}
          ref={rows.measureElement}
          aria-setsize={items.length}
          aria-posinset={row.index + 1}
          className={`absolute inset-x-0 top-0 border-b border-base-300 ${classOf?.(items[row.index]!) ?? ''}`}
          style={{ transform: `translateY(${row.start - top}px)` }}
        >
          {children(items[row.index]!)}
        </li>
      ))}
    </ul>
  );
}
