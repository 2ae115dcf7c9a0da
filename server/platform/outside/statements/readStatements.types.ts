import type { Statement } from '../../../../core/evidence/statements/statement.types.ts';

export type StatementFormat = 'camt.052' | 'camt.053' | 'camt.054' | 'OFX' | 'MT940' | 'CSV';

/** One statement of a file, or what is wrong with it, at its place. */
export type ReadStatement = { ok: true; statement: Statement } | { ok: false; account: string | null; says: string };
export type ReadFile = { ok: true; format: StatementFormat; statements: ReadStatement[] } | { ok: false; says: string };
