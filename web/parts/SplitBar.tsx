import { scaleLinear } from 'd3-scale';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { ShareRow } from '../../core/documents/assessment.schema.ts';
import type { Split } from '../../core/documents/case.schema.ts';
import { toMinor } from '../../core/numbers/amount.ts';
import { moveCut } from './convertSplit.ts';

const FILLS = ['var(--sea-3)', 'var(--sea-1)', 'var(--sea-4)', 'var(--sea-2)'];

interface SplitBarProps {
  split: Split;
  figures: readonly ShareRow[];
  /** What no share has yet: an empty piece at the end, and no cuts until it is divided. */
  left?: ShareRow | null;
  currency: string;
  onChange: (split: Split) => void;
}

/** The line as a bar divided by cuts that can be dragged, or moved with the arrow keys, a percent at a time. */
export function SplitBar({ split, figures, left = null, currency, onChange }: SplitBarProps) {
  const bar = useRef<HTMLDivElement>(null);
  const widthOf = (share: ShareRow | null | undefined) =>
    share?.gross ? Math.abs(Number(toMinor(share.gross, currency))) : 0;
  const grosses = split.shares.map((_, i) => widthOf(figures[i]));
  const total = grosses.reduce((a, g) => a + g, widthOf(left));
  if (total === 0) return <div className="h-5 rounded border border-dashed border-base-300" />;
  const scale = scaleLinear([0, total], [0, 100]);
  const starts = grosses.map((_, i) => scale(grosses.slice(0, i).reduce((a, g) => a + g, 0)));
  const drag = (index: number) => (event: PointerEvent) => {
    if (event.buttons !== 1 || !bar.current) return;
    const box = bar.current.getBoundingClientRect();
    onChange(moveCut(split, grosses, index, (100 * (event.clientX - box.left)) / box.width));
  };
  return (
    <div ref={bar} className="relative h-5 touch-none select-none">
      <svg
        viewBox="0 0 100 10"
        preserveAspectRatio="none"
        className="h-full w-full rounded border border-dashed border-base-300"
        aria-hidden
      >
        {grosses.map((gross, i) => (
          <rect key={i} x={starts[i]} width={scale(gross)} height="10" fill={FILLS[i % FILLS.length]} />
        ))}
      </svg>
      {(left ? [] : starts.slice(1)).map((at, index) => (
        <Cut
          key={index}
          n={index + 1}
          at={at}
          onDrag={drag(index)}
          onStep={(step) => onChange(moveCut(split, grosses, index, Math.round(at) + step))}
        />
      ))}
    </div>
  );
}

interface CutProps {
  n: number;
  /** Where it is, in percent of the bar. */
  at: number;
  onDrag: (event: PointerEvent) => void;
  onStep: (step: number) => void;
}

function Cut({ n, at, onDrag, onStep }: CutProps) {
  const press = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    onStep(step);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`Cut after share ${n}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at)}
      className="absolute -top-1 -bottom-1 w-2.5 -translate-x-1/2 cursor-ew-resize rounded border border-base-100 bg-base-content"
      style={{ left: `${at}%` }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={onDrag}
      onKeyDown={press}
    />
  );
}
