import type { Facts } from './facts.ts';

/** The day on which drawn papers are read. */
export const AS_OF = '2026-06-30';
export interface Drawn {
  at: string;
  facts: Facts;
  bytes: Buffer;
}
