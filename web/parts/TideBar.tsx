import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import type { TidePiece } from '../api/claims.ts';

const TONES: Record<string, string> = {
  'with approver': 'var(--sea-1)',
  'in review': 'var(--sea-3)',
  cleared: 'var(--sea-2)',
  posted: 'var(--sea-4)',
  paid: 'var(--tied)',
  returned: 'var(--open)',
  declined: 'var(--off)',
  withdrawn: 'var(--open)',
  reversed: 'var(--off)',
  'part paid': 'var(--sea-2)',
  'payment rejected': 'var(--off)',
};
const LEAST = 0.06;
const DAY = 86_400_000;

/**
 * A claim's progress as a thin bar cut into the states it went through since submission, each as wide as the time
 * spent there (with a least width); the words beside it and the notches between pieces say the same without colour.
 */
export function TideBar({ pieces, wide = false }: { pieces: TidePiece[]; wide?: boolean }) {
  const [now] = useState(Date.now);
  const since = pieces.filter((piece) => piece.state !== 'draft');
  if (since.length === 0) return <span className="quiet text-sm">not submitted</span>;
  const parts = widths(since, now);
  const words = parts.map((p) => `${p.state} ${age(p.ms)}`).join(', then ');
  return (
    <span className="block" title={words}>
      <svg
        viewBox="0 0 100 8"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Progress: ${words}`}
        className={`block w-full ${wide ? 'h-3' : 'h-2'}`}
      >
        {parts.map((p) => (
          <rect
            key={p.x}
            x={p.x}
            y="0"
            width={Math.max(p.width - 0.9, 0.5)}
            height="8"
            rx="1"
            fill={TONES[p.state] ?? 'var(--sea-1)'}
          />
        ))}
      </svg>
      <span className="quiet mt-0.5 flex justify-between text-xs leading-tight">
        <span>{parts.at(-1)!.state}</span>
        <span>{age(now - Date.parse(since[0]!.from))}</span>
      </span>
    </span>
  );
}

function widths(pieces: TidePiece[], now: number) {
  const ends = [...pieces.slice(1).map((p) => Date.parse(p.from)), now];
  const spans = pieces.map((p, i) => Math.max(0, ends[i]! - Date.parse(p.from)));
  const total = spans.reduce((a, b) => a + b, 0) || 1;
  const raw = spans.map((span) => Math.max(span / total, LEAST));
  const scale = scaleLinear([0, raw.reduce((a, b) => a + b, 0)], [0, 100]);
  let sum = 0;
  return pieces.map((piece, i) => {
    const x = scale(sum);
    sum += raw[i]!;
    return { state: piece.state, ms: spans[i]!, x, width: scale(sum) - x };
  });
}

export function age(ms: number): string {
  const days = Math.floor(ms / DAY);
  if (days >= 1) return `${days} d`;
  const hours = Math.floor(ms / 3_600_000);
  return hours >= 1 ? `${hours} h` : `${Math.max(1, Math.floor(ms / 60_000))} min`;
}
