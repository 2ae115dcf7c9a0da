import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { drop } from './files.ts';
import { pageOf } from './people.ts';

interface View {
  name: string;
  who: string | null;
  open: (page: Page) => Promise<void>;
}

const views: View[] = [
  {
    name: 'sign-in',
    who: null,
    open: async (page) => {
      await page.goto('/');
      await expect(page.getByText('Aoi Kuramochi')).toBeVisible();
    },
  },
  {
    name: 'Desk',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk');
      await expect(page.getByRole('list', { name: 'Claims' })).toBeVisible();
    },
  },
  {
    name: 'empty Desk',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk');
      await page.getByLabel('Find claims').fill('nothing like it');
      await expect(page.getByText(/No claim in review fits/)).toBeVisible();
    },
  },
  {
    name: 'Sheet',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk/C-1009');
      await page.getByRole('heading', { name: /Line 1/ }).waitFor();
      await page.keyboard.press('j');
    },
  },
  {
    name: 'Sheet, split bench',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk/C-1003');
      await page.getByRole('heading', { name: /Line 3/ }).waitFor();
      await page.keyboard.press('s');
      await page.getByText('as typed, not saved').waitFor();
    },
  },
  {
    name: 'Sheet, tax bench',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk/C-1009');
      await page.getByRole('heading', { name: /Line 1/ }).waitFor();
      await page.keyboard.press('t');
      await page.getByRole('form').waitFor();
    },
  },
  {
    name: 'Sheet, items and return',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk/C-1008');
      await page.getByRole('heading', { name: /Line 1/ }).waitFor();
      await page.keyboard.press('i');
      await page.keyboard.press('r');
      await page.getByRole('button', { name: 'Return the claim' }).waitFor();
    },
  },
  {
    name: 'Sheet, history',
    who: 'ottoline.marchbanks',
    open: async (page) => {
      await page.goto('/desk/C-1020');
      await page.getByRole('button', { name: 'History' }).click();
      await page.getByText(/reversed IE-/).waitFor();
    },
  },
  {
    name: 'Ledger',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/ledger');
      await expect(page.getByRole('list', { name: 'Journals' })).toBeVisible();
    },
  },
  {
    name: 'Journal',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/ledger/IE-000002');
      await page.getByRole('table').getByRole('button').first().click();
      await page.getByRole('button', { name: 'Reverse…' }).click();
      await page.getByText('1 of 1').waitFor();
    },
  },
  {
    name: 'receipts, one open',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/gather/receipts');
      await page.getByRole('link', { name: /ferry-ticket\.pdf/ }).click();
      await page.getByRole('img', { name: 'ferry-ticket.pdf' }).waitFor();
      await page.getByLabel(/^Amount/).focus();
    },
  },
  {
    name: 'receipts, a file refused, one put on a claim',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/gather/receipts');
      const zone = page.getByRole('region', { name: 'Add files' });
      await zone.waitFor();
      await drop(page, zone, [{ name: 'empty.pdf', type: 'application/pdf', bytes: new Uint8Array() }]);
      await zone.getByRole('alert').waitFor();
      const free = page.getByRole('list', { name: 'Not on a claim yet' });
      await free.getByRole('checkbox').first().check();
      await page.getByRole('button', { name: 'Put on a claim…' }).click();
      await page.getByRole('form', { name: 'Put on a claim' }).waitFor();
    },
  },
  {
    name: 'card charges',
    who: 'leilani.kahue',
    open: async (page) => {
      await page.goto('/gather/charges');
      await page.getByRole('button', { name: /^All/ }).click();
      await page.getByRole('list', { name: 'Charges' }).waitFor();
    },
  },
  {
    name: 'pairs',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/gather/pairs');
      await page.getByRole('list', { name: 'Receipts and charges' }).waitFor();
      await page.getByRole('button', { name: 'Choose' }).first().click();
      await page.getByRole('button', { name: 'Pair here' }).first().waitFor();
    },
  },
  {
    name: 'cards by month',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/gather/cards');
      await page.getByText('Purchasing card').waitFor();
    },
  },
  {
    name: 'a card’s month',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/gather/cards');
      await page
        .getByRole('link', { name: /^\d{4}-\d{2}/ })
        .first()
        .click();
      await page.getByRole('region', { name: 'Proof' }).waitFor();
    },
  },
  {
    name: 'statements, columns of a table',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/gather/statements');
      const zone = page.getByRole('region', { name: 'Add files' });
      await zone.waitFor();
      const text = 'When;What;How much\r\n2031-05-06;Quay;1,00\r\n';
      await drop(page, zone, [{ name: 'new.csv', type: 'text/csv', bytes: Buffer.from(text) }]);
      await page.getByRole('button', { name: 'Show what the rows become' }).click();
      await page.getByRole('form').getByRole('alert').waitFor();
    },
  },
  {
    name: 'items of a draft’s line',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/claims/C-1031');
      await page.getByRole('button', { name: 'Break into items' }).first().click();
      await page.getByRole('form', { name: /Items of line/ }).waitFor();
    },
  },
  {
    name: 'own claims',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/claims');
      await page.getByRole('link', { name: /C-1005/ }).waitFor();
    },
  },
  {
    name: 'claim page',
    who: 'wanjiru.mbaya',
    open: async (page) => {
      await page.goto('/claims/C-1003');
      await page.getByText('Advance A-031').waitFor();
    },
  },
  {
    name: 'a claim that is not there',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk/C-9999');
      await page.getByRole('alert').waitFor();
    },
  },
  {
    name: 'account',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk');
      await page.getByRole('link', { name: 'Maeve Tarrant' }).click();
      await page.getByText('this one').waitFor();
    },
  },
  {
    name: 'all keys',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/desk');
      await page.getByRole('list', { name: 'Claims' }).waitFor();
      await page.keyboard.press('?');
      await page.getByRole('dialog').waitFor();
    },
  },
];

const ALL_RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** Longer than any colour takes to change. */
const COLOURS_SETTLE_MS = 400;

/** Legacy mode: no view has frames, and the other mode opens a page more for each analysis. */
const violationsOf = async (axe: AxeBuilder): Promise<string[]> =>
  (await axe.setLegacyMode().analyze()).violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  );

for (const view of views)
  test(`axe finds nothing by day, and no faint colours by night: ${view.name}`, async ({ browser }) => {
    const page = view.who ? await pageOf(browser, view.who) : await (await browser.newContext()).newPage();
    const noise: string[] = [];
    page.on('pageerror', (error) => noise.push(error.message));
    page.on(
      'console',
      (message) => message.type() === 'error' && !/status of 4\d\d/.test(message.text()) && noise.push(message.text()),
    );
    await view.open(page);
    expect(await violationsOf(new AxeBuilder({ page }).withTags(ALL_RULES))).toEqual([]);
    await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'ebbet-night'));
    await page.waitForTimeout(COLOURS_SETTLE_MS);
    expect(await violationsOf(new AxeBuilder({ page }).withRules(['color-contrast']))).toEqual([]);
    expect(noise).toEqual([]);
    await page.context().close();
  });

test('the claimant’s pages and the approver’s fit a phone; the Sheet fits 1024', async ({ browser }) => {
  const phone = await pageOf(browser, 'wanjiru.mbaya');
  await phone.setViewportSize({ width: 390, height: 780 });
  for (const path of ['/claims', '/claims/C-1003']) {
    await phone.goto(path);
    await phone.getByText(/Mangrove nursery visit/).waitFor();
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
  const sheet = await pageOf(browser, 'maeve.tarrant');
  await sheet.setViewportSize({ width: 1024, height: 768 });
  for (const path of ['/desk', '/desk/C-1010']) {
    await sheet.goto(path);
    await sheet.getByText('Ottoline Featherstonehaugh-Marchbanks').first().waitFor();
    expect(await sheet.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  }
});

test('a view that cannot be loaded says so and tries again', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  let broken = true;
  await page.route('**/api/claims?**', (route) => (broken ? route.abort() : route.continue()));
  await page.goto('/desk');
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached.');
  broken = false;
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('list', { name: 'Claims' })).toBeVisible();
});
