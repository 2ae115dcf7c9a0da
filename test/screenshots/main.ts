import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import config from '../../playwright.config.ts';
import { connect } from '../../server/platform/db/connect.ts';
import { prepare } from '../../server/prepare.ts';

/** npm run screenshots: takes one picture of each main view from the demo data into docs/screenshots. */
const PORT = '4391';
const BANK_PORT = '4392';
const folder = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));

interface Shot {
  name: string;
  who: string | null;
  path: string;
  act?: (page: Page) => Promise<void>;
  theme?: 'night';
  size?: { width: number; height: number };
}

const line = (page: Page, name: RegExp) => page.getByRole('heading', { name }).waitFor();
const SHOTS: Shot[] = [
  { name: 'sign-in', who: null, path: '/' },
  {
    name: 'advance',
    who: 'odd.fjellheim',
    path: '/advances/A-031',
    act: async (page) => {
      await page.getByRole('region', { name: 'Claims set against it' }).waitFor();
    },
  },
  { name: 'advances-register', who: 'odd.fjellheim', path: '/advances/register' },
  { name: 'messages', who: 'wanjiru.mbaya', path: '/messages' },
  { name: 'desk', who: 'maeve.tarrant', path: '/desk?older=14', act: (page) => page.keyboard.press('q') },
  { name: 'sheet', who: 'maeve.tarrant', path: '/desk/C-1001', act: (page) => line(page, /Line 2, receipt/) },
  {
    name: 'sheet-split',
    who: 'maeve.tarrant',
    path: '/desk/C-1002',
    act: async (page) => {
      await line(page, /Line 3, receipt/);
      await page.keyboard.press('s');
      await page.getByLabel('Value of share 1').fill('33.3');
      await page.keyboard.press('Escape');
      await page.keyboard.press('j');
      await page.keyboard.press('s');
      await page.getByText('as typed, not saved').waitFor();
    },
  },
  {
    name: 'sheet-night',
    who: 'maeve.tarrant',
    path: '/desk/C-1006',
    theme: 'night',
    act: (page) => line(page, /Line 1, budget/),
  },
  {
    name: 'receipts',
    who: 'tomas.brandao',
    path: '/gather/receipts',
    act: async (page) => {
      await page.getByText('look and confirm').first().waitFor({ timeout: 60_000 });
      await page.getByRole('link', { name: /photo-0412\.jpg/ }).click();
      await page.getByLabel(/^Amount/).focus();
    },
  },
  {
    name: 'receipts-phone',
    who: 'tomas.brandao',
    path: '/gather/receipts',
    size: { width: 390, height: 780 },
  },
  {
    name: 'charges',
    who: 'tomas.brandao',
    path: '/gather/charges',
    act: async (page) => {
      for (const i of [0, 1, 2]) await page.getByRole('checkbox').nth(i).check();
      await page.getByRole('form', { name: 'Put on a claim' }).waitFor();
    },
  },
  {
    name: 'pairs',
    who: 'tomas.brandao',
    path: '/gather/pairs',
    act: (page) => page.getByRole('list', { name: 'Proposed pairs' }).waitFor(),
  },
  {
    name: 'statements',
    who: 'odd.fjellheim',
    path: '/gather/statements',
    act: async (page) => {
      const text =
        'Buchungstag;Händler;Betrag\r\n03.03.2031;Watt & Meer;1.234,56\r\n04.03.2031;Deichbäckerei;12,30\r\n';
      const file = { name: 'umsatz.csv', mimeType: 'text/csv', buffer: Buffer.from(text) };
      await page.locator('input[type=file]').first().setInputFiles([file]);
      const form = page.getByRole('form', { name: 'Columns of the table' });
      await form.getByRole('combobox', { name: 'Card', exact: true }).selectOption('4427');
      await form.getByRole('combobox', { name: 'Dates are written' }).selectOption('dmy');
      await form.getByRole('button', { name: 'Show what the rows become' }).click();
      await form.getByRole('region', { name: 'What the rows become' }).waitFor();
    },
  },
  {
    name: 'plan',
    who: 'siobhan.odowd',
    path: '/plans/T-203',
    act: async (page) => {
      await page.getByRole('button', { name: 'More of estimate 3' }).click();
    },
  },
  {
    name: 'claim-prepare',
    who: 'tomas.brandao',
    path: '/claims/C-1031',
    act: async (page) => {
      await page.getByRole('button', { name: 'More of line 2' }).click();
      await page.getByLabel('Amount of a new line').fill('1500 JPY');
    },
  },
  { name: 'ledger', who: 'odd.fjellheim', path: '/ledger' },
  {
    name: 'journal',
    who: 'odd.fjellheim',
    path: '/ledger/IE-000002',
    act: async (page) => {
      await page.getByRole('table').getByRole('button').first().click();
      await page.getByText('1 of 1').waitFor();
    },
  },
  {
    name: 'claim-page',
    who: 'wanjiru.mbaya',
    path: '/claims/C-1003',
    act: (page) => page.getByRole('link', { name: 'A-031' }).waitFor(),
  },
  {
    name: 'approvals',
    who: 'siobhan.odowd',
    path: '/approvals',
    act: async (page) => {
      await page.getByRole('checkbox', { name: 'Choose C-1024' }).check();
    },
  },
];

async function take(base: string, shot: Shot, browser: Awaited<ReturnType<typeof chromium.launch>>): Promise<void> {
  const context = await browser.newContext({
    baseURL: base,
    viewport: shot.size ?? { width: 1280, height: 800 },
    reducedMotion: 'reduce',
  });
  if (shot.who)
    await context.request.post('/api/session', {
      data: { email: `${shot.who}@saltmarsh.example`, password: 'saltmarsh' },
    });
  if (shot.theme) await context.addInitScript(() => localStorage.setItem('ebbet-theme', 'ebbet-night'));
  // a stream that stays open would never let the network be idle
  await context.route('**/api/messages/live', (route) => route.abort());
  const page = await context.newPage();
  await page.goto(shot.path);
  await page.waitForLoadState('networkidle');
  await shot.act?.(page);
  await page.waitForTimeout(400);
  await page.screenshot({ path: `${folder}${shot.name}.png` });
  await context.close();
}

process.env.BANK_FILE = join(mkdtempSync(join(tmpdir(), 'ebbet-bank-')), 'bank.json');
const owner = connect(process.env.DATABASE_OWNER_URL!);
const appPassword = new URL(process.env.DATABASE_APP_URL!).password;
await prepare(owner, process.env.DATABASE_OWNER_URL!, { appPassword, demo: true });
await owner.destroy();
const env = { ...process.env, BANK_PORT, BANK_URL: `http://127.0.0.1:${BANK_PORT}`, NODE_ENV: 'production', PORT };
const bank = spawn(process.execPath, ['build/server/bank.mjs'], { env, stdio: ['ignore', 'ignore', 'inherit'] });
const server = spawn(process.execPath, ['build/server/main.mjs'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
// also when a picture fails, nothing is left running
process.once('exit', () => [server, bank].forEach((child) => child.kill('SIGTERM')));
await once(server.stdout, 'data');
const browser = await chromium.launch(config.use!.launchOptions!);
for (const shot of SHOTS) await take(`http://127.0.0.1:${PORT}`, shot, browser);
await browser.close();
process.exit(0);
