import { useState } from 'react';
import type { TidePiece } from '../api/claims.ts';
import { age, tideParts } from '../words/tide.ts';

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
  requested: 'var(--sea-1)',
  'to pay out': 'var(--sea-2)',
  'paid out': 'var(--sea-4)',
  settled: 'var(--tied)',
};

/**
 * A claim's progress as a thin bar cut into the states it went through since submission, each as wide as the time
 * spent there (with a least width); the words beside it and the notches between pieces say the same without colour.
 */
export function TideBar({ pieces, wide = false }: { pieces: TidePiece[]; wide?: boolean }) {
  const [now] = useState(Date.now);
  const since = pieces.filter((piece) => piece.state !== 'draft');
  if (since.length === 0) return <span className="quiet text-sm">not submitted</span>;
  const parts = tideParts(since, now);
  const words = parts.map((p) => `${p.state} ${age(p.ms)}`).join(', then ');
  return (
    <span className="block" title={words}>
      <Bar parts={parts} words={words} wide={wide} />
      <span className="quiet mt-0.5 flex justify-between text-xs leading-tight">
        <span>{parts.at(-1)!.state}</span>
        <span>{age(now - Date.parse(since[0]!.from))}</span>
      </span>
    </span>
  );
}

interface BarProps {
  parts: ReturnType<typeof tideParts>;
  words: string;
  wide: boolean;
}

function Bar({ parts, words, wide }: BarProps) {
  return (
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
  );
}
