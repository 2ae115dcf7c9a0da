import multer from 'multer';
import { KeyReused } from '../db/once.ts';
import { Refused } from './refusal.ts';

/**
 * What failed, as one of our refusals: the one place where errors of packages and of the database become answers. What is
 * none of these was not foreseen and is answered as broken.
 */
export function toRefused(error: unknown): Refused {
  if (error instanceof Refused) return error;
  if (error instanceof KeyReused) return new Refused('key-reused');
  return ofUpload(error) ?? ofRequest(error) ?? ofDatabase(error) ?? new Refused('broken');
}

/** Files: too large, too many, or a form that breaks off. */
function ofUpload(error: unknown): Refused | null {
  if (!(error instanceof multer.MulterError)) return null;
  return error.code === 'LIMIT_FILE_SIZE' ? new Refused('too-large', { limit: '15 MB' }) : new Refused('no-file');
}

/** Requests that cannot be read; body-parser and the router say so by a type or a status of their own. */
function ofRequest(error: unknown): Refused | null {
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.parse.failed') return new Refused('not-json');
  if (type === 'entity.too.large') return new Refused('too-large', { limit: '1 MB' });
  if (type === 'encoding.unsupported' || type === 'charset.unsupported') return new Refused('not-readable');
  return typeof status === 'number' && status >= 400 && status < 500 ? new Refused('not-understood') : null;
}

const AWAY = /^(?:08...|57P0[123]|ECONNREFUSED|ECONNRESET|ENOENT|EPIPE|ETIMEDOUT)$/;
const COME_BACK = { seconds: 5 };

/** What the database says: that it is away, full or busy, or that one of its guards refuses. Classes are of SQLSTATE. */
function ofDatabase(error: unknown): Refused | null {
  const { code = '', message = '', name = '' } = error as { code?: string; message?: string; name?: string };
  const guard = GUARDS[code];
  if (guard) return guard;
  if (AWAY.test(code) || /^Connection terminated|timeout exceeded when trying to connect/.test(message))
    return new Refused('away', COME_BACK);
  if (code === DISK_FULL) return new Refused('no-space');
  if (name === 'KnexTimeoutError' || /^(?:40001|40P01|55P03|57014|53...)$/.test(code))
    return new Refused('busy', COME_BACK);
  if (/^22/.test(code)) return new Refused('not-storable');
  if (/^23/.test(code)) return new Refused('changed-meanwhile');
  return null;
}

const DISK_FULL = '53100';

/** Guards of our own; reached only when a rule was changed between our check and the database's. */
const GUARDS: Record<string, Refused> = {
  EB001: new Refused('period-closed', { date: 'this date', open: 'see the ledger' }),
  EB002: new Refused('changed-meanwhile'),
  EB003: new Refused('changed-meanwhile'),
  EB004: new Refused('changed-meanwhile'),
  EB006: new Refused('evidence-kept'),
  EB007: new Refused('not-signed-in'),
  EB008: new Refused('cycle-kept'),
  EB009: new Refused('changed-meanwhile'),
  EB010: new Refused('changed-meanwhile'),
  EB011: new Refused('changed-meanwhile'),
  EB012: new Refused('not-allowed', { needs: 'controller of the entity' }),
  EB005: new Refused('future-date', { date: 'This date', today: 'today' }),
};
