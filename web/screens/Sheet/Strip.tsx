import type { ReactNode } from 'react';

/** A sentence across the head of a Sheet about something that holds the claim up. */
export const Strip = ({ tone, children }: { tone: string; children: ReactNode }) => (
  <div className={`border-l-4 px-4 py-1.5 ${tone} bg-base-200`}>{children}</div>
);
