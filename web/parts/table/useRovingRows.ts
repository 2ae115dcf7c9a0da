import { useRef, useState } from 'react';
import { useKeys } from '../useKeys.ts';

/**
 * Arrow keys move the focus through the [data-row] elements of a list; only the current one is in the tab order. Of two lists
 * on a page the one with the focus listens.
 */
export function useRovingRows<T extends HTMLElement>(count: number) {
  const list = useRef<T>(null);
  const [current, setCurrent] = useState(0);
  const focus = (index: number) => {
    const next = Math.max(0, Math.min(count - 1, index));
    setCurrent(next);
    list.current?.querySelectorAll<HTMLElement>('[data-row]')[next]?.focus();
  };
  const inside = () => list.current?.contains(document.activeElement) ?? false;
  const elsewhere = () => !inside() && document.activeElement?.matches('[data-row]') === true;
  useKeys({
    down: () => !elsewhere() && focus(inside() ? current + 1 : current),
    up: () => !elsewhere() && focus(current - 1),
  });
  return { list, current, setCurrent };
}
