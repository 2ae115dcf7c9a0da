import { advanceRules } from './advances.ts';
import { routes } from './routes.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { rebuildBook } from '../server/records/book/sharedBook.ts';
import {
  accountNames,
  budgets,
  categories,
  categoryFields,
  codingRules,
  dimensions,
  dimensionValues,
  entities,
  euroRates,
  grantCategories,
  limits,
  taxCodes,
  merchantCodes,
} from './organisation.ts';
import { loadPlanRules } from './loadPlans.ts';
import { planTolerances } from './plans.ts';
import { randomFrom } from './random.ts';

const RATE_DAYS = 150;

export async function loadEntities(db: Db): Promise<void> {
  await db('entities').insert(entities.map(({ id, name, currency, time_zone }) => ({ id, name, currency, time_zone })));
}

/** What each entity's claims are assessed by besides the chart: registrations, tolerances, accounts. */
async function loadTerms(db: Db): Promise<void> {
  await db('entity_terms').insert(
    entities.map(({ id, name: _, currency: __, time_zone: ___, accounts, cards, ...terms }) => ({
      ...terms,
      entity_id: id,
      accounts: JSON.stringify(accounts),
      cards: JSON.stringify(cards),
      plan_tolerance: JSON.stringify(planTolerances[id]),
    })),
  );
}

/** Chart, taxes, rates and periods around a day; people, who own codes, are there already. */
export async function loadBook(db: Db, day: string): Promise<void> {
  await db('accounts').insert(accountNames.map(([code, name]) => ({ code, name })));
  await loadTerms(db);
  await loadChart(db);
  await db('tax_codes').insert(taxCodes.map((code) => ({ recovery: '100', ...code })));
  await loadRules(db);
  await loadPlanRules(db);
  await db('rates').insert(dailyRates(day));
  const periods = entities.flatMap((e) => months(day).map((m) => ({ entity_id: e.id, ...m, state: 'open' })));
  await db('periods').insert(periods);
  await db('settings').insert({ key: 'clearing-and-posting-apart', value: 'true' });
  for (const { id } of entities) await rebuildBook(db, id);
}

async function loadChart(db: Db): Promise<void> {
  await db('dimensions').insert(dimensions.map(([id, name], position) => ({ id, name, position })));
  await db('dimension_values').insert(
    dimensionValues.map(([dimension_id, code, name, owner_id]) => ({
      dimension_id,
      code,
      name,
      owner_id,
      categories: grantCategories[code] ?? null,
    })),
  );
  await db('categories').insert(
    categories.map(([id, name, account, recovery]) => ({
      id,
      name,
      account,
      recovery,
      merchant_codes: merchantCodes[id] ?? [],
      fields: JSON.stringify(categoryFields[id] ?? []),
    })),
  );
}

async function loadRules(db: Db): Promise<void> {
  await db('budgets').insert(
    budgets.map(([entity_id, dimension_id, code, category, amount]) => ({
      entity_id,
      dimension_id,
      code,
      category,
      amount,
    })),
  );
  await db('coding_rules').insert(codingRules.map(({ id, ...rule }) => ({ id, rule: JSON.stringify(rule) })));
  await db('routes').insert(routes.map(({ id, ...rule }) => ({ id, rule: JSON.stringify(rule) })));
  await db('advance_rules').insert(advanceRules.map(({ id, ...rule }) => ({ id, rule: JSON.stringify(rule) })));
  await db('limits').insert(limits.map(({ id, ...rule }) => ({ id, rule: JSON.stringify(rule) })));
}

/** Invented rates on working days that wander a little around a level. */
export function dailyRates(day: string, days = RATE_DAYS) {
  const random = randomFrom(4300);
  return euroRates.flatMap(([currency, level, decimals]) => {
    let drift = 0;
    return Array.from({ length: days }, (_, i) => addDays(day, i - days + 1))
      .filter((date) => ![0, 6].includes(new Date(`${date}T00:00:00Z`).getUTCDay()))
      .map((date) => {
        drift = drift * 0.95 + (random.next() - 0.5) * 0.004;
        return {
          from_currency: 'EUR',
          to_currency: currency,
          date,
          rate: (level * (1 + drift)).toFixed(decimals),
          source: 'Saltmarsh reference rates, invented',
        };
      });
  });
}

/** Months from five before, or more, to twelve after the day's. */
export function months(day: string, before = 5) {
  const [year, month] = day.split('-').map(Number) as [number, number];
  return Array.from({ length: before + 13 }, (_, i) => {
    const first = new Date(Date.UTC(year, month - 1 - before + i, 1));
    const last = new Date(Date.UTC(year, month - before + i, 0));
    const iso = (date: Date) => date.toISOString().slice(0, 10);
    return { id: iso(first).slice(0, 7), from_date: iso(first), to_date: iso(last) };
  });
}
