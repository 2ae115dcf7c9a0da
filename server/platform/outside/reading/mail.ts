import { convert } from 'html-to-text';
import type { ParsedMail } from 'mailparser';

const MOST_LETTERS = 40_000;

/** Heavy packages are loaded when the first file of their kind comes. */
export async function parseMail(bytes: Buffer): Promise<ParsedMail> {
  const { simpleParser } = await import('mailparser');
  return simpleParser(bytes, { skipHtmlToText: true, skipImageLinks: true, skipTextLinks: true });
}

/** The one address a mail says it is from, in small letters; null when it says none, or several. */
export async function senderOf(bytes: Buffer): Promise<string | null> {
  const from = (await parseMail(bytes)).from?.value ?? [];
  return from.length === 1 ? (from[0]!.address?.toLowerCase() ?? null) : null;
}

/** What a mail says, as it is shown and read; empty when it says nothing. */
export const mailText = async (bytes: Buffer): Promise<string> => textOf(await parseMail(bytes));

/**
 * Who sent it, what about, when, and its text. Of a forwarded mail these are the ones of the mail that was forwarded:
 * the merchant wrote that, and not the colleague who passed it on.
 */
export function textOf(mail: ParsedMail): string {
  const body = bodyOf(mail);
  if (body.trim() === '') return '';
  const inner = forwardedIn(body);
  const [sender] = mail.from?.value ?? [];
  const from = inner?.from ?? nameOr(sender?.name ?? '', sender?.address ?? '');
  const subject = inner?.subject ?? mail.subject?.replace(FORWARD_MARK, '');
  const day = inner ? inner.sent : mail.date?.toISOString().slice(0, 10);
  const sent = day && `Sent: ${day}`;
  const head = [from, subject, sent].filter(Boolean).join('\n');
  return `${head}\n\n${(inner?.text ?? body).slice(0, MOST_LETTERS)}`.replaceAll('\0', '');
}

/** The text; of a mail whose tables hold its figures, that of its HTML, with cells apart and rows in order. */
function bodyOf({ text = '', html }: ParsedMail): string {
  const set = typeof html === 'string' ? htmlText(html) : '';
  const wantsTables = typeof html === 'string' && /<t[dh][\s>]/i.test(html);
  return set !== '' && (text.trim() === '' || wantsTables) ? set : text;
}

const htmlText = (html: string): string =>
  convert(html, {
    wordwrap: false,
    limits: { maxInputLength: 2_000_000, maxDepth: 60 },
    selectors: [
      {
        selector: 'table',
        format: 'dataTable',
        options: { colSpacing: 3, rowSpacing: 0, uppercaseHeaderCells: false },
      },
      { selector: 'img', format: 'skip' },
      { selector: 'a', options: { ignoreHref: true } },
      ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6'].map((selector) => ({ selector, options: { uppercase: false } })),
    ],
  }).trim();

const FORWARD_MARK = /^(?:\s*(?:fwd?|wg|tr|rv|enc|i|vs|fs|vl|doorst)\s*:)+\s*/i;
/** The head of a forwarded mail in the languages of western and northern Europe (common practice of mail programs; from memory). */
const FROM = /^[\s>*]*(?:from|von|de|da|van|fra|från|lähettäjä)\s*:\*?\s*(\S.*)$/i;
const SUBJECT = /^[\s>*]*(?:subject|betreff|objet|asunto|assunto|oggetto|onderwerp|emne|ämne|aihe)\s*:\*?\s*(\S.*)$/i;
const SENT =
  /^[\s>*]*(?:date|sent|datum|gesendet|fecha|enviado(?: el)?|data|enviada|inviato|verzonden|dato|sendt|skickat|lähetetty|envoyé|päivämäärä)\s*:\*?\s*(\S.*)$/i;
const HEAD_ROW = /^[\s>*]*\p{L}[\p{L} -]{1,20}\s*:\*?\s*\S/u;
const MOST_HEAD_ROWS = 8;

interface Forwarded {
  from: string;
  subject: string | undefined;
  /** When it was sent, as its head writes it. */
  sent: string | undefined;
  text: string;
}

/** The mail inside a forwarded one: its sender, subject and text, or null when nothing was forwarded. */
function forwardedIn(body: string): Forwarded | null {
  const rows = body.split(/\r?\n/);
  for (const [i, row] of rows.entries()) {
    const from = FROM.exec(row)?.[1];
    if (!from) continue;
    const head = headAt(rows, i);
    const subject = head.map((r) => SUBJECT.exec(r)?.[1]).find((found) => found !== undefined);
    if (subject === undefined) continue;
    const text = rows.slice(i + head.length).map((r) => r.replace(/^(?:\s*>)+ ?/, ''));
    const sent = head.map((r) => SENT.exec(r)?.[1]).find((found) => found !== undefined);
    return { from: nameOf(from), subject: subject.replace(FORWARD_MARK, ''), sent, text: text.join('\n') };
  }
  return null;
}

/** The rows of a head from one of them on: "From: …", "Date: …", "Subject: …", "To: …". */
function headAt(rows: readonly string[], from: number): string[] {
  const rest = rows.slice(from, from + MOST_HEAD_ROWS);
  const end = rest.findIndex((row) => !HEAD_ROW.test(row));
  return end < 0 ? rest : rest.slice(0, end);
}

/** What a department calls itself: no merchant's name. */
const DEPARTMENT =
  /^(?:your )?(?:receipts?|e-?receipts?|billing|invoices?|orders?|bookings?|reservations?|payments?|accounts?|customer (?:service|care|support)|support|info|no-?reply|do not reply|tickets?|sales|shop|service|kvittering(?:er)?|kvitto(?:n)?|faktura|rechnung(?:en)?|beleg(?:e)?|buchung(?:en)?|reçus?|factures?|recibos?|facturas?|faturas?|ricevut[ae]|fattur[ae])$/i;

/** "Harbour Café <till@cafe.example>" → "Harbour Café". */
function nameOf(from: string): string {
  const [name = ''] = from.split(/[<[(]/);
  const address = from.split(/[\s<>[\]():]/).find((part) => part.includes('@')) ?? '';
  return nameOr(name.replace(/["*]/g, '').trim(), address) || from;
}

/** A sender's name; where it names a department, whose it is by its address: ("Receipts", "till@harbour-cafe.example") → "harbour cafe". */
function nameOr(name: string, address: string): string {
  if (name !== '' && !DEPARTMENT.test(name)) return name;
  const labels =
    address
      .split('@')[1]
      ?.split('.')
      .filter((label) => !/^(?:co|com|org|net|ac)$/.test(label)) ?? [];
  return labels.at(-2)?.replace(/-/g, ' ') ?? (name || address);
}
