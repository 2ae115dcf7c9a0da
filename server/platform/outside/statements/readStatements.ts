import { readCamt } from './camt.ts';
import { readMt940 } from './mt940.ts';
import { readOfx } from './ofx.ts';
import type { ReadFile } from './readStatements.types.ts';

/** Reads a statement file of an open format, told by its content. Text that is none of them is `null`: it may be CSV. */
export function readStatements(text: string): ReadFile | null {
  const head = text.slice(0, 2000);
  if (text.trim() === '') return { ok: false, says: 'The file is empty.' };
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    return { ok: false, says: 'It declares a document type or entities, which are never read.' };
  if (/<(?:\w+:)?BkToCstmr(?:Stmt|AcctRpt|DbtCdtNtfctn)|urn:iso:std:iso:20022:tech:xsd:camt\.05[234]/.test(head))
    return readCamt(text);
  if (/OFXHEADER|<OFX>/i.test(head)) return readOfx(text);
  if (/^[ \t]*(?:\{1:|:20:)/m.test(head)) return readMt940(text);
  if (/^\s*<\?xml|^\s*<\w/.test(head))
    return { ok: false, says: 'It is XML, but no camt.053, camt.052 or camt.054, and no OFX.' };
  return null;
}
