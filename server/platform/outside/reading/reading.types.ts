import type { Reading } from '../../../../core/evidence/reading/reading.types.ts';

/** One page as it is shown: drawn anew, without metadata. */
export interface PageView {
  bytes: Buffer;
  type: 'image/webp';
  width: number;
  height: number;
}
export type FileKind = 'picture' | 'pdf' | 'invoice' | 'mail';

/** A file that was accepted: what it is, how it is shown, and how it looks to a likeness search. */
export interface Accepted {
  ok: true;
  type: string;
  kind: FileKind;
  pages: PageView[];
  /** 64-bit likeness hash of the first page, 16 hexadecimal digits; null for what is not a picture. */
  likeness: string | null;
}
/** A saved e-mail with attachments: each is a file of its own, and what it says itself, where it says something, is one too. */
export interface Parcel {
  ok: true;
  kind: 'parcel';
  parts: { name: string; bytes: Buffer }[];
  /** The names of attachments beyond what is taken of one e-mail. */
  beyond: string[];
  body: Accepted | null;
}
/** What is wrong with the file, to be said after its name. */
export interface Refusal {
  ok: false;
  reason: string;
}
export type Inspected = Accepted | Parcel | Refusal;

/** How a document was read. */
export type Method = 'recognised' | 'text' | 'e-invoice';
export interface ReadResult {
  method: Method;
  reading: Reading;
  /** What is odd about the document as a whole, such as totals that do not agree. */
  remarks: string[];
  /** Quarter turns clockwise after which each page stands upright; empty where none is turned. */
  turns: number[];
}
