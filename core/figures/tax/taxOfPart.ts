import type { Figure, LineScope, TaxFigures } from '../figures.types.ts';
import { finding, type FindingKind, type Place } from '../../documents/finding.ts';
import type { TaxCode, TaxEntry } from '../../documents/case.schema.ts';
import { fromMinor, magnitude, signOf, toMinor } from '../../numbers/amount.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import { mileage } from '../allowance/mileage.ts';
import { apportion } from '../split/apportion.ts';
import {
  componentsOf,
  includedTax,
  recoverableTax,
  selfAssessedTax,
  type Component,
  type EntryFigures,
} from './taxEntry.ts';

/** The taxed amount a part consists of: a line, or one of its items. */
export interface TaxedPart {
  place: Place;
  /** As it was claimed: what the entries are judged by. */
  claimed: bigint;
  /** What of it stands, and is taxed. */
  amount: bigint;
  entries: readonly TaxEntry[];
  categoryRecovery: string | null | undefined;
}
interface Entry {
  code: TaxCode;
  components: Component[];
  /** What it covers and what was given as its tax, after cuts; null where it cannot stand. */
  gross: Figure;
  given: Figure;
  figures: EntryFigures | null;
}

/**
 * The tax rows of a line or item, one for each entry and component, and the findings about them. Example: 123.00 with
 * one entry of 23 % → one row, net 100.00, tax 23.00.
 */
export function taxOfPart(scope: LineScope, part: TaxedPart): TaxFigures[] {
  if (part.entries.length === 0) return [];
  const entries = computeEntries(scope, part);
  const reclaims = reclaimByCode(scope, part, entries);
  return entries.flatMap((entry) => rowsOf(scope, part, entry, reclaims.get(entry.code.code)!));
}

function computeEntries(scope: LineScope, part: TaxedPart): Entry[] {
  const { open, line } = scope;
  const grosses = grossesOf(scope, part);
  const left = cutGrosses(part, grosses);
  return part.entries.map((entry, index) => {
    const code = open.taxCodes.on(entry.code, line.date)!;
    const components = componentsOf(code);
    const [gross, after] = [grosses[index] ?? null, left[index] ?? null];
    const given = entry.tax == null ? null : toMinor(entry.tax, line.currency);
    const figures = gross === null ? null : figuresOf(scope, part, code, components, gross, given);
    if (gross === after || gross === null || figures === null) return { code, components, gross, given, figures };
    const givenAfter =
      given === null || gross === 0n ? given : roundHalfAway(given * magnitude(after!), magnitude(gross));
    const cut = taxOn(code, components, after!, givenAfter);
    return { code, components, gross: after, given: givenAfter, figures: cut.ok ? cut : null };
  });
}

/** What the entries cover after a cut: all that stands, or the same part of it as before, divided by what each covered. */
function cutGrosses({ entries, claimed, amount }: TaxedPart, grosses: readonly Figure[]): Figure[] {
  if (claimed === amount) return [...grosses];
  if (entries.length === 1 && entries[0]!.gross == null && grosses[0] === claimed) return [amount];
  const known = grosses.map((g) => g ?? 0n);
  const covered = known.reduce((a, g) => a + g, 0n);
  const parts = apportion(roundHalfAway(covered * magnitude(amount), magnitude(claimed)), known.map(magnitude));
  return grosses.map((g, i) => (g === null ? null : parts[i]!));
}

const taxOn = (code: TaxCode, components: Component[], gross: bigint, given: bigint | null) =>
  code.selfAssessed ? selfAssessedTax(gross, components[0]!, given) : includedTax(gross, components, given);

/** The gross of each entry in minor units; null where it cannot stand, with the finding already made. */
function grossesOf(scope: LineScope, part: TaxedPart): Figure[] {
  const { line, findings } = scope;
  const { entries, claimed, place } = part;
  const report = (kind: FindingKind, numbers: Record<string, string>) => findings.push(finding(kind, place, numbers));
  if (entries.length > 1 && entries.some((e) => e.gross == null)) {
    report('tax-entries', {});
    return entries.map(() => null);
  }
  const all = taxedOf(scope, part);
  const grosses = entries.map((e) => (e.gross == null ? all : toMinor(e.gross, line.currency)));
  const wrongSign = grosses.map((g) => g !== 0n && signOf(g) !== signOf(claimed));
  entries.forEach((e, i) => wrongSign[i] && report('tax-gross-sign', { code: e.code }));
  const over = magnitude(grosses.reduce((a, g) => a + g, 0n)) - magnitude(claimed);
  if (over > 0n && !wrongSign.includes(true)) {
    report('tax-gross-sum', { difference: fromMinor(over, line.currency) });
    return entries.map(() => null);
  }
  return grosses.map((g, i) => (wrongSign[i] ? null : g));
}

/** What an entry without a gross covers: the amount; of a journey whose rate names a fuel part that part alone (rule 27). */
function taxedOf({ open, line }: LineScope, { claimed, place }: TaxedPart): bigint {
  if (!line.journey || place.item !== null) return claimed;
  const found = mileage({ ...line.journey, date: line.date }, open.case.book.mileageRates ?? []);
  if (!found?.fuelPart || found.currency !== line.currency) return claimed;
  const fuel = toMinor(found.fuelPart, line.currency);
  return fuel < claimed ? fuel : claimed;
}

function figuresOf(
  scope: LineScope,
  part: TaxedPart,
  code: TaxCode,
  components: Component[],
  gross: bigint,
  given: bigint | null,
): EntryFigures | null {
  const { line, findings } = scope;
  const figures = taxOn(code, components, gross, given);
  if (!figures.ok) {
    findings.push(finding(figures.problem, part.place, { code: code.code }));
    return null;
  }
  if (figures.off !== null && magnitude(figures.off) > 1n)
    findings.push(
      finding('tax-off', part.place, { code: code.code, difference: fromMinor(figures.off, line.currency) }),
    );
  return figures;
}

/** For each code of the part whether its tax may be reclaimed; makes at most one finding a code. */
function reclaimByCode(scope: LineScope, part: TaxedPart, entries: Entry[]): Map<string, boolean> {
  const reclaims = new Map<string, boolean>();
  for (const { code } of entries) {
    if (reclaims.has(code.code)) continue;
    const sameCode = entries.filter((e) => e.code.code === code.code);
    const takesAway = sameCode.some((e) => recoverables(scope, part, e).some((r) => r !== 0n));
    const kind = code.selfAssessed ? unregistered(scope, code) : barrier(scope, code);
    if (kind && (takesAway || kind === 'tax-country' || kind === 'tax-unregistered'))
      scope.findings.push(
        finding(kind, part.place, { code: code.code, country: code.country, lineCountry: scope.line.country ?? null }),
      );
    reclaims.set(code.code, code.selfAssessed === true || kind === null);
  }
  return reclaims;
}

/** The first condition that stands against reclaiming, or null. */
function barrier({ entity, line }: LineScope, code: TaxCode): FindingKind | null {
  if (!entity.taxRegistrations?.includes(code.country)) return 'tax-foreign';
  if (line.country && line.country !== code.country) return 'tax-country';
  if (entity.taxNumberRequired && !line.receipt?.taxNumber) return 'tax-number-missing';
  return null;
}

const unregistered = ({ entity }: LineScope, code: TaxCode): FindingKind | null =>
  entity.taxRegistrations?.includes(code.country) ? null : 'tax-unregistered';

/** What would be reclaimed of each component of an entry if nothing stood against it. */
function recoverables(scope: LineScope, part: TaxedPart, { components, figures }: Entry): bigint[] {
  if (!figures) return [];
  return components.map((c, k) => recoverableTax(figures.taxes[k]!, c, part.categoryRecovery, scope.entity.recovery));
}

function rowsOf(scope: LineScope, part: TaxedPart, entry: Entry, reclaims: boolean): TaxFigures[] {
  const { code, components, gross, given, figures } = entry;
  const recoverable = recoverables(scope, part, entry);
  const ledger = (minor: Figure) => (minor === null ? null : scope.toLedger.convert(minor));
  return components.map((component, k) => {
    const net = figures?.net ?? null;
    const tax = figures?.taxes[k] ?? null;
    const back = figures ? (reclaims ? recoverable[k]! : 0n) : null;
    return {
      code: code.code,
      component: component.id,
      account: component.account,
      outputAccount: code.selfAssessed ? code.outputAccount! : null,
      gross,
      given,
      net,
      tax,
      recoverable: back,
      ledgerNet: ledger(net),
      ledgerTax: ledger(tax),
      ledgerRecoverable: ledger(back),
    };
  });
}
