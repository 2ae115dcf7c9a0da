import { datedRows } from '../numbers/datedRows.ts';
import type { Dated } from '../numbers/isoDate.ts';
import { magnitude, readAmount, signOf } from '../numbers/amount.ts';
import type { Case, Entity, Item, Line } from './case.schema.ts';
import { checkRules } from './checkRules.ts';
import { checkSize } from './checkSize.ts';
import type { Problem, Report } from './problem.ts';

/**
 * What the shape of a document cannot say: amounts carry the decimals of their currency, ids exist in the book on the
 * date they are looked up by, and the combinations that calculations refuse are refused. Empty when the case is valid.
 * Example: "12.5" EUR → path claim.lines[0].amount, "does not have the decimals of EUR".
 */
export function checkCase(document: Case): Problem[] {
  const problems: Problem[] = [];
  const report: Report = (path, message) => problems.push({ path, message });
  checkBook(document, report);
  checkSize(document, report);
  if (problems.length === 0) checkClaim(document, report);
  return problems;
}

function checkBook({ book }: Case, report: Report): void {
  checkDated(book.entities, (r) => r.id, ['book', 'entities'], report);
  checkDated(book.categories, (r) => r.id, ['book', 'categories'], report);
  checkDated(book.people, (r) => r.id, ['book', 'people'], report);
  checkDated(book.taxCodes, (r) => r.code, ['book', 'taxCodes'], report);
  checkDated(book.advances ?? [], (r) => r.id, ['book', 'advances'], report);
  checkDated(book.limits ?? [], (r) => r.id, ['book', 'limits'], report);
  checkDated(book.codingRules ?? [], (r) => r.id, ['book', 'codingRules'], report);
  checkQuotes(book.rates, report);
  checkAllowances(book, report);
  book.entities.forEach(({ planTolerance, currency }, i) => {
    if (planTolerance?.amount != null)
      checkAmount(planTolerance.amount, currency, ['book', 'entities', i, 'planTolerance', 'amount'], report);
  });
  book.taxCodes.forEach((code, i) => checkTaxCode(code, ['book', 'taxCodes', i], report));
  book.advances?.forEach((advance, i) => {
    const path = ['book', 'advances', i];
    checkAmount(advance.outstanding, advance.currency, [...path, 'outstanding'], report);
    if (advance.outstanding.startsWith('-')) report([...path, 'outstanding'], 'must not be negative');
  });
}

/** Rows of one key may follow each other in time, but only one may hold on a date. */
function checkDated<T extends Dated>(
  rows: readonly T[],
  keyOf: (row: T) => string,
  path: string[],
  report: Report,
): void {
  const seen = new Map<string, T[]>();
  rows.forEach((row, i) => {
    if (row.from && row.to && row.from > row.to) report([...path, i, 'to'], `is before from ${row.from}`);
    const others = seen.get(keyOf(row)) ?? [];
    if (others.some((other) => overlap(other, row)))
      report([...path, i], `"${keyOf(row)}" is in the book twice for the same dates`);
    seen.set(keyOf(row), [...others, row]);
  });
}

const overlap = (a: Dated, b: Dated): boolean =>
  (a.from ?? '') <= (b.to ?? '9999-12-31') && (b.from ?? '') <= (a.to ?? '9999-12-31');

function checkQuotes(rates: Case['book']['rates'], report: Report): void {
  const seen = new Set<string>();
  rates.forEach(({ from, to, date }, i) => {
    const key = `${from} to ${to} on ${date}`;
    if (from === to) report(['book', 'rates', i, 'to'], 'is the same currency as from');
    if (seen.has(key)) report(['book', 'rates', i], `there are two quotes for ${key}`);
    seen.add(key);
  });
}

/** Amounts of a day are amounts of their currency; those of a distance may be finer. */
function checkAllowances({ allowanceRates }: Case['book'], report: Report): void {
  allowanceRates?.forEach(({ currency, full, taxFree, meals }, i) => {
    const path = ['book', 'allowanceRates', i];
    checkAmount(full, currency, [...path, 'full'], report);
    if (taxFree != null) checkAmount(taxFree, currency, [...path, 'taxFree'], report);
    for (const [meal, off] of Object.entries(meals ?? {}))
      if (off && 'amount' in off) checkAmount(off.amount, currency, [...path, 'meals', meal, 'amount'], report);
  });
}

function checkTaxCode(code: Case['book']['taxCodes'][number], path: (string | number)[], report: Report): void {
  if (code.components) {
    for (const field of ['rate', 'account', 'recovery'] as const)
      if (code[field] != null) report([...path, field], 'belongs to the components of this tax code');
    const ids = code.components.map((c) => c.id);
    ids.forEach((id, i) => ids.indexOf(id) < i && report([...path, 'components', i, 'id'], `"${id}" is used twice`));
    if (code.selfAssessed) report([...path, 'components'], 'a self-assessed tax code has one rate and no components');
  } else {
    for (const field of ['rate', 'account', 'recovery'] as const)
      if (code[field] == null) report([...path, field], 'is missing');
  }
  if (code.selfAssessed && !code.outputAccount)
    report([...path, 'outputAccount'], 'is missing: a self-assessed tax is credited to it');
}

function checkClaim(document: Case, report: Report): void {
  const { claim, book, postingDate } = document;
  const entity = datedRows(book.entities, (r) => r.id).on(claim.entity, postingDate);
  if (!entity) return report(['claim', 'entity'], `the book has no entity "${claim.entity}" on ${postingDate}`);
  if (!datedRows(book.people, (r) => r.id).on(claim.claimant, postingDate))
    report(['claim', 'claimant'], `the book has no person "${claim.claimant}" on ${postingDate}`);
  book.advances?.forEach((a, i) =>
    checkAmount(a.ledgerOutstanding, entity.currency, ['book', 'advances', i, 'ledgerOutstanding'], report),
  );
  checkRules(document, entity.currency, report);
  checkAdvances(document, report);
  checkPlan(document, report);
  checkLines(document, report);
  checkExplanations(document, report);
}

/** What is explained is a line of the claim, or the claim itself. */
function checkExplanations({ claim }: Case, report: Report): void {
  const lines = new Set(claim.lines.map((l) => l.id));
  claim.explanations?.forEach(({ line }, i) => {
    if (line != null && !lines.has(line))
      report(['claim', 'explanations', i, 'line'], `the claim has no line "${line}"`);
  });
}

function checkAdvances({ claim, book, postingDate }: Case, report: Report): void {
  const advances = datedRows(book.advances ?? [], (r) => r.id);
  const named = new Set<string>();
  claim.advances?.forEach((wanted, i) => {
    const path = ['claim', 'advances', i];
    const advance = advances.on(wanted.advance, postingDate);
    if (!advance) report([...path, 'advance'], `the book has no advance "${wanted.advance}" on ${postingDate}`);
    else if (advance.person !== claim.claimant)
      report([...path, 'advance'], `"${wanted.advance}" is an advance of ${advance.person}, not of the claimant`);
    if (named.has(wanted.advance)) report([...path, 'advance'], `"${wanted.advance}" is named twice`);
    named.add(wanted.advance);
    if (wanted.upTo == null) return;
    checkAmount(wanted.upTo, claim.currency, [...path, 'upTo'], report);
    if (wanted.upTo.startsWith('-')) report([...path, 'upTo'], 'must not be negative');
  });
}

function checkPlan({ claim }: Case, report: Report): void {
  const estimates = claim.plan?.estimates ?? [];
  const ids = estimates.map((e) => e.id);
  estimates.forEach(({ id, amount }, i) => {
    const path = ['claim', 'plan', 'estimates', i];
    if (ids.indexOf(id) < i) report([...path, 'id'], `"${id}" is used by two estimates`);
    checkAmount(amount, claim.currency, [...path, 'amount'], report);
    if (amount.startsWith('-')) report([...path, 'amount'], 'must not be negative');
  });
  claim.lines.forEach(({ estimate }, i) => {
    if (estimate != null && !ids.includes(estimate))
      report(['claim', 'lines', i, 'estimate'], `the claim's plan has no estimate "${estimate}"`);
  });
}

function checkLines(document: Case, report: Report): void {
  const { claim, book } = document;
  const lookups = {
    categories: datedRows(book.categories, (r) => r.id),
    taxCodes: datedRows(book.taxCodes, (r) => r.code),
    entities: datedRows(book.entities, (r) => r.id),
  };
  const ids = new Set<string>();
  claim.lines.forEach((line, i) => {
    const path = ['claim', 'lines', i];
    if (ids.has(line.id)) report([...path, 'id'], `"${line.id}" is used by two lines`);
    ids.add(line.id);
    const entity = lookups.entities.on(claim.entity, line.date);
    if (!entity) return report([...path, 'date'], `the book has no entity "${claim.entity}" on ${line.date}`);
    checkLine(document, entity, line, path, report);
    const parts = line.items?.length
      ? line.items.map((item, k) => ({ part: item, at: [...path, 'items', k] }))
      : [{ part: line, at: path }];
    for (const { part, at } of parts) checkPart(line, part, at, lookups, report);
  });
}

function checkLine({ claim }: Case, entity: Entity, line: Line, path: (string | number)[], report: Report): void {
  checkAmount(line.amount, line.currency, [...path, 'amount'], report);
  if (line.receipt?.amount != null && line.receipt.currency != null)
    checkAmount(line.receipt.amount, line.receipt.currency, [...path, 'receipt', 'amount'], report);
  if (line.rebill && line.personal) report([...path, 'rebill'], 'what is private is charged on to nobody');
  if (line.card != null && line.paidBy !== 'card') report([...path, 'card'], 'only a line paid by card has a card');
  if (entity.rateDate === 'submitted' && !claim.submittedOn)
    report(['claim', 'submittedOn'], "is missing: the entity's rates are those of that date");
  checkRate(claim.currency, line, [...path, 'rate'], report);
  const computed = (['quantity', 'journey', 'stay'] as const).filter((field) => line[field] != null);
  if (computed[1])
    report([...path, computed[1]], `an amount is computed from one thing, and this line has a ${computed[0]}`);
  if (line.items?.length) checkItems(line, path, report);
}

function checkRate(claimCurrency: string, line: Line, path: (string | number)[], report: Report): void {
  if (line.rate?.kind === 'own') {
    if (line.paidBy !== 'own')
      report([...path, 'kind'], 'a rate of the claimant’s own needs a line paid with own money');
    if (line.currency === claimCurrency)
      report([...path, 'kind'], 'a line in the claim’s currency has no rate of its own');
  }
  if (line.rate?.kind !== 'card') return;
  if (line.paidBy !== 'card') report([...path, 'kind'], 'a card rate needs a line paid by card');
  const { settled } = line.rate;
  checkAmount(settled.amount, settled.currency, [...path, 'settled', 'amount'], report);
  const taken = readAmount(settled.amount, settled.currency);
  const charged = readAmount(line.amount, line.currency);
  if (taken === null || charged === null) return;
  if (signOf(taken) !== signOf(charged))
    report([...path, 'settled', 'amount'], `does not have the sign of the line's ${line.amount}`);
  if (settled.currency === line.currency && taken !== charged)
    report([...path, 'settled', 'amount'], `must be the line's ${line.amount}: both are ${line.currency}`);
}

function checkItems(line: Line, path: (string | number)[], report: Report): void {
  if (line.personal) report([...path, 'items'], 'a personal line has no items');
  for (const field of ['category', 'split', 'cut'] as const)
    if (line[field] != null) report([...path, field], 'a line with items has no ' + field + ' of its own');
  if (line.tax?.length) report([...path, 'tax'], 'a line with items has no tax of its own');
  const ids = new Set<string>();
  line.items?.forEach((item, k) => {
    if (ids.has(item.id)) report([...path, 'items', k, 'id'], `"${item.id}" is used by two items`);
    ids.add(item.id);
    checkAmount(item.amount, line.currency, [...path, 'items', k, 'amount'], report);
  });
}

interface Lookups {
  categories: { on(key: string, date: string): unknown };
  taxCodes: { on(key: string, date: string): unknown };
}

/** A cut has the sign of what it is of, and is part or all of it. */
function checkCut(line: Line, part: Line | Item, path: (string | number)[], report: Report): void {
  if (!part.cut) return;
  checkAmount(part.cut.amount, line.currency, [...path, 'amount'], report);
  const cut = readAmount(part.cut.amount, line.currency);
  const whole = readAmount(part.amount, line.currency);
  if (line.paidBy === 'central') report(path, 'what was paid centrally cannot be cut');
  if (line.personal || part.personal) report(path, 'what is personal cannot be cut');
  if (cut === null || whole === null) return;
  if (cut === 0n) report([...path, 'amount'], 'must not be 0');
  else if (signOf(cut) !== signOf(whole)) report([...path, 'amount'], `does not have the sign of ${part.amount}`);
  else if (magnitude(cut) > magnitude(whole)) report([...path, 'amount'], `is more than ${part.amount}`);
}

function checkPart(line: Line, part: Line | Item, path: (string | number)[], book: Lookups, report: Report): void {
  checkCut(line, part, [...path, 'cut'], report);
  if (line.personal || part.personal) return checkPersonal(line, part, path, report);
  if (!part.category) report([...path, 'category'], 'is missing');
  else if (!book.categories.on(part.category, line.date))
    report([...path, 'category'], `the book has no category "${part.category}" on ${line.date}`);
  part.tax?.forEach((entry, k) => {
    const at = [...path, 'tax', k];
    if (!book.taxCodes.on(entry.code, line.date))
      report([...at, 'code'], `the book has no tax code "${entry.code}" on ${line.date}`);
    if (entry.gross != null) checkAmount(entry.gross, line.currency, [...at, 'gross'], report);
    if (entry.tax != null) checkAmount(entry.tax, line.currency, [...at, 'tax'], report);
  });
  if (part.split?.unit != null && part.split.by !== 'weight')
    report([...path, 'split', 'unit'], 'is for weights alone');
  if (part.split?.by !== 'amount') return;
  part.split.shares.forEach((share, k) => {
    if (share.value != null && share.value !== 'rest')
      checkAmount(share.value, line.currency, [...path, 'split', 'shares', k, 'value'], report);
  });
}

function checkPersonal(line: Line, part: Line | Item, path: (string | number)[], report: Report): void {
  if (line.paidBy !== 'card') report([...path, 'personal'], 'only what was paid by card can be personal');
  if (part.tax?.length) report([...path, 'tax'], 'a personal part carries no tax');
  if (part.coding && Object.keys(part.coding).length) report([...path, 'coding'], 'a personal part carries no coding');
  if (part.split) report([...path, 'split'], 'a personal part carries no split');
}

function checkAmount(amount: string, currency: string, path: (string | number)[], report: Report): void {
  if (readAmount(amount, currency) === null)
    report(path, `"${amount}" is not an amount with the decimals of ${currency}`);
}
