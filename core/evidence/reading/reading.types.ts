/** A place on a page, as fractions (0 to 1) of the page's width and height, from its top left corner. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** A word as it stands on a page. `page` counts from 1; `confidence` is 0 to 100, and 100 where the text was not guessed. */
export interface Word {
  text: string;
  page: number;
  box: Box;
  confidence: number;
}
/** Where a figure was read. */
export interface Spot {
  page: number;
  box: Box;
}

/** sure: would be taken without a look · likely: probably right · doubtful: a guess worth offering. */
export type Sureness = 'sure' | 'likely' | 'doubtful';

/** A figure proposed from the document, with how sure the reading is, where it stands, and why it was taken. */
export interface Found {
  value: string;
  sure: Sureness;
  spot: Spot | null;
  because: string;
}
/** A tax read from the document: the rate in percent and what of it could be read, as decimal strings. */
export interface FoundTax {
  /** Null when the document does not tell it. */
  rate: string | null;
  base: string | null;
  tax: string | null;
  sure: Sureness;
  spot: Spot | null;
}

/** A row of what was bought: its words and its amount as a decimal string. */
export interface FoundItem {
  text: string;
  amount: string;
  spot: Spot | null;
}

/** What a document says, as far as it could be read; nothing is invented, what was not found is null. */
export interface Reading {
  amount: Found | null;
  currency: Found | null;
  /** ISO 8601. */
  date: Found | null;
  merchant: Found | null;
  taxes: FoundTax[];
  taxNumber: Found | null;
  /** The last four digits of the card it was paid with. */
  cardDigits: Found | null;
  /** What was bought, row by row. Left out by readings from before anybody looked for it, as is `paid`. */
  bought?: FoundItem[];
  /** What on it says that it was paid. */
  paid?: Found | null;
  /** The papers that one page shows, where it shows more than one: nothing that was read is sure then. */
  apart?: Spot[];
}

export const FIELDS = ['amount', 'currency', 'date', 'merchant', 'taxNumber', 'cardDigits'] as const;
export type Field = (typeof FIELDS)[number];
