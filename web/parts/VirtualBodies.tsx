import { defaultRangeExtractor, useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useImperativeHandle, useRef, useState, type ReactNode, type Ref } from 'react';

interface VirtualBodiesProps {
  count: number;
  keyOf: (row: number) => string;
  /** About how high one is, in pixels; each is measured once it is drawn. */
  height: number;
  /** Those that are drawn wherever they are: one that is opened, those in which something is typed. */
  kept: readonly number[];
  ref: Ref<VirtualBodiesHandle>;
  /** The rows of one of them. */
  children: (row: number) => ReactNode;
}
export interface VirtualBodiesHandle {
  /** Brings one into sight, then goes to its first field. */
  show(row: number): void;
}

/** Bodies of a table of which only those near the window, the one that has the focus and those that are kept are drawn. */
export function VirtualBodies({ count, keyOf, height, kept, ref, children }: VirtualBodiesProps) {
  const start = useRef<HTMLTableSectionElement>(null);
  const [focused, setFocused] = useState(-1);
  const [top, setTop] = useState(0);
  // what stands above the table grows and shrinks with what is said of the claim
  useEffect(() => {
    const measure = () => setTop(start.current ? start.current.getBoundingClientRect().top + window.scrollY : 0);
    const observer = new ResizeObserver(measure);
    observer.observe(document.body);
    return () => observer.disconnect();
  }, []);
  const rows = useWindowVirtualizer({
    count,
    estimateSize: () => height,
    overscan: 10,
    scrollMargin: top,
    getItemKey: keyOf,
    rangeExtractor: (range) =>
      [
        ...new Set([...defaultRangeExtractor(range), ...[...kept, focused].filter((row) => row >= 0 && row < count)]),
      ].sort((a, b) => a - b),
  });
  const find = (row: number) => document.querySelector<HTMLElement>(`[data-body="${row}"] :is(input, [role=combobox])`);
  useImperativeHandle(ref, () => ({
    show(row) {
      if (row < 0) return;
      setFocused(row);
      rows.scrollToIndex(row, { align: 'center' });
      requestAnimationFrame(() => requestAnimationFrame(() => find(row)?.focus()));
    },
  }));
  const drawn = rows.getVirtualItems();
  return (
    <>
      <tbody ref={start} aria-hidden />
      {drawn.flatMap((item, i) => {
        const gap = item.start - (drawn[i - 1]?.end ?? top);
        return [
          ...(gap > 0 ? [<Gap key={`before ${item.key}`} height={gap} />] : []),
          <tbody
            key={item.key}
            ref={rows.measureElement}
            data-index={item.index}
            data-body={item.index}
            onFocus={() => setFocused(item.index)}
          >
            {children(item.index)}
          </tbody>,
        ];
      })}
      <Gap height={rows.getTotalSize() + top - (drawn.at(-1)?.end ?? top)} />
    </>
  );
}

const Gap = ({ height }: { height: number }) =>
  height > 0 ? (
    <tbody aria-hidden>
      <tr>
        <td style={{ height, padding: 0 }} />
      </tr>
    </tbody>
  ) : null;
