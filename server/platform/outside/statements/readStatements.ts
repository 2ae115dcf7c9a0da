import { readCamt } from './camt.ts';
import { readMt940 } from './mt940.ts';
import { readOfx } from './ofx.ts';
import type { ReadFile } from './readStatements.types.ts';

/** Text of a file by its byte-order mark, as UTF-8, or else as windows-1252, which older banks write. */
export function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

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
