import { expect } from '@playwright/test';
import { drop } from './files.ts';
import { VIEWS_OF_ADVANCES } from './viewsOfAdvances.ts';
import { VIEWS_OF_DECISIONS, type View } from './viewsOfDecisions.ts';

/** Every view of the application: who sees it, and how it is reached. */
export const views: View[] = [
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
      await expect(page.getByRole('table', { name: 'Claims' })).toBeVisible();
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
      // it opens on the line with the stop; the other one, tied throughout, is folded
      await page.getByRole('heading', { name: /Line 2/ }).waitFor();
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press('Enter');
      await page.keyboard.press('ArrowUp');
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
      await expect(page.getByRole('table', { name: 'Journals' })).toBeVisible();
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
      await page.getByRole('group', { name: 'Which charges' }).getByRole('button', { name: /^all/i }).click();
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
      await page.getByRole('button', { name: 'More of line 1' }).click();
      await page.getByRole('button', { name: 'Break into items' }).click();
      await page.getByRole('form', { name: /Items of line/ }).waitFor();
    },
  },
  {
    name: 'a claim being written, a line opened',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/claims/C-1031');
      await page.getByRole('button', { name: 'More of line 2' }).click();
      await page.getByLabel('Country of line 2').waitFor();
    },
  },
  {
    name: 'what is submitted',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/claims/C-1031');
      await page.getByRole('button', { name: 'Submit…' }).click();
      await page.getByText('Who decides about it').waitFor();
    },
  },
  {
    name: 'a new claim',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/claims');
      await page.getByRole('button', { name: 'New claim' }).click();
      await page.getByLabel('What it is for').waitFor();
    },
  },
  {
    name: 'plans',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/plans');
      await page.getByRole('link', { name: /Drone licence/ }).waitFor();
    },
  },
  {
    name: 'a new plan',
    who: 'hedda.vestergaard',
    open: async (page) => {
      await page.goto('/plans');
      await page.getByRole('button', { name: 'New plan' }).click();
      await page.getByLabel('For whom').waitFor();
    },
  },
  {
    name: 'a plan being written',
    who: 'tomas.brandao',
    open: async (page) => {
      await page.goto('/plans/T-204');
      await page.getByLabel('Choose estimate 1').check();
      await page.getByRole('button', { name: 'More of estimate 2' }).click();
    },
  },
  {
    name: 'a plan to decide about',
    who: 'siobhan.odowd',
    open: async (page) => {
      await page.goto('/plans/T-203');
      await page.getByRole('button', { name: 'More of estimate 3' }).click();
      await page.getByRole('button', { name: 'Approve…' }).click();
    },
  },
  ...VIEWS_OF_DECISIONS,
  ...VIEWS_OF_ADVANCES,
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
      await page.getByRole('link', { name: 'A-031' }).waitFor();
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
      await page.getByRole('table', { name: 'Claims' }).waitFor();
      await page.keyboard.press('?');
      await page.getByRole('dialog').waitFor();
    },
  },
];
