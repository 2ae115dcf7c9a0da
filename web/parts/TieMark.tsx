import type { ShownTie } from '../../core/evidence/comparisons/stateWithMark.ts';

export const TIE_WORDS: Record<ShownTie, string> = {
  tied: 'tied',
  off: 'off',
  open: 'open: nothing to compare with',
  waived: 'waived',
  seen: 'seen',
  none: 'does not apply',
};

/** The state of a comparison by its shape first, then by colour. */
export function TieMark({ state, label, size = 16 }: { state: ShownTie; label?: string; size?: number }) {
  const words = `${label ? `${label}: ` : ''}${TIE_WORDS[state]}`;
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" role="img" aria-label={words} className="shrink-0">
      <title>{words}</title>
      {SHAPES[state]}
    </svg>
  );
}

const SHAPES: Record<ShownTie, React.ReactNode> = {
  tied: (
    <g fill="none" stroke="var(--tied)" strokeWidth="2">
      <rect x="1.6" y="5.2" width="7.4" height="5.6" rx="2.8" />
      <rect x="7" y="5.2" width="7.4" height="5.6" rx="2.8" />
    </g>
  ),
  off: <path d="M8 1 15 8 8 15 1 8Z" fill="var(--off)" />,
  open: (
    <g fill="none" stroke="var(--open)" strokeWidth="2">
      <path d="M6 5.2H4.4a2.8 2.8 0 0 0 0 5.6H6M10 5.2h1.6a2.8 2.8 0 0 1 0 5.6H10" />
    </g>
  ),
  seen: (
    <g fill="none" stroke="var(--open)" strokeWidth="2">
      <path d="M6 5.2H4.4a2.8 2.8 0 0 0 0 5.6H6M10 5.2h1.6a2.8 2.8 0 0 1 0 5.6H10" />
      <circle cx="8" cy="8" r="0.9" fill="var(--open)" />
    </g>
  ),
  waived: <path d="M8 2 14 8 8 14 2 8ZM4.6 8h6.8" fill="none" stroke="var(--tied)" strokeWidth="1.8" />,
  none: <path d="M6 8h4" stroke="currentColor" opacity="0.35" strokeWidth="1.5" />,
};
