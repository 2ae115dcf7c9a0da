import type { Converter } from './currency/converter.ts';
import type { RateTable } from './currency/rateTable.ts';
import type { DatedRows } from '../numbers/datedRows.ts';
import type { Finding } from '../documents/finding.ts';
import type { Advance, Case, Category, Coding, Entity, Line, Person, TaxCode } from '../documents/case.schema.ts';

/** Minor units, or null for a figure that cannot be computed. */
export type Figure = bigint | null;

/** A case with its book indexed; made once a case by `openCase`. */
export interface OpenCase {
  case: Case;
  rates: RateTable;
  entities: DatedRows<Entity>;
  taxCodes: DatedRows<TaxCode>;
  categories: DatedRows<Category>;
  people: DatedRows<Person>;
  advances: DatedRows<Advance>;
  /** The entity as it is on the posting date: its accounts and its currency, the ledger's. */
  entity: Entity;
  ledgerCurrency: string;
  claimCurrency: string;
}

/** What a line, and each of its parts, needs to be computed. */
export interface LineScope {
  open: OpenCase;
  line: Line;
  entity: Entity;
  toClaim: Converter;
  toLedger: Converter;
  findings: Finding[];
}

/** One component's tax of one entry. Figures in the line's currency and, with `ledger`, the ledger's. */
export interface TaxFigures {
  code: string;
  component: string | null;
  account: string;
  /** The account credited, for a self-assessed tax; null otherwise. */
  outputAccount: string | null;
  /** What the entry covers, and what was given as its tax, after cuts. */
  gross: Figure;
  given: Figure;
  net: Figure;
  tax: Figure;
  recoverable: Figure;
  ledgerNet: Figure;
  ledgerTax: Figure;
  ledgerRecoverable: Figure;
}

export interface ShareFigures {
  account: string;
  coding: Coding;
  gross: Figure;
  recoverable: Figure;
  selfAssessed: Figure;
  cost: Figure;
  claimAmount: Figure;
  ledgerGross: Figure;
  ledgerRecoverable: Figure;
  ledgerSelfAssessed: Figure;
  ledgerCost: Figure;
  /** What its coding lets be reclaimed of what would be, in percent as it is written. */
  recovery: string;
}

/** A line without items, one item of it, or what was cut of either on a card line. */
export interface PartFigures {
  item: string | null;
  personal: boolean;
  /** As it was claimed. */
  claimed: bigint;
  /** As it counts: what was claimed less what was cut. */
  amount: bigint;
  claimAmount: Figure;
  ledgerAmount: Figure;
  tax: TaxFigures[];
  shares: ShareFigures[];
}

export interface LineFigures {
  line: Line;
  /** What of the line counts: of own money less cuts, of what the company paid the whole. */
  amount: bigint;
  claimAmount: Figure;
  ledgerAmount: Figure;
  parts: PartFigures[];
  /** False when the items do not add up to the line, so no journal can be made of it. */
  whole: boolean;
  findings: Finding[];
}

export interface AppliedAdvance {
  advance: Advance;
  applied: Figure;
  part: Figure;
  ledgerPart: Figure;
  left: Figure;
}

export interface SettlementFigures {
  due: Figure;
  advances: AppliedAdvance[];
  payable: Figure;
  receivable: Figure;
  findings: Finding[];
}

/** The kinds of control account whose balance is the sum of what is open on it. */
export const OPEN_ITEM_KINDS = ['payable', 'receivable', 'staff advance', 'card clearing', 'central clearing'] as const;
export type OpenItemKind = (typeof OPEN_ITEM_KINDS)[number];
/** What a row moves on a control account: `of` names the advance or the card; null is what the journal is about. */
export interface OpenItemRef {
  kind: OpenItemKind;
  of: string | null;
}

/** One journal row in ledger minor units; a negative debit is a credit. `amount` is debit − credit in `currency`. */
export interface RowFigures {
  account: string;
  coding: Coding;
  debit: bigint;
  currency: string;
  amount: bigint;
  line: string | null;
  item: string | null;
  taxCode: string | null;
  text: string;
  /** What it moves on a control account; missing for every other account. */
  moves?: OpenItemRef;
}
