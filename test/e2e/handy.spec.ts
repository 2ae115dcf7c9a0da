import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { drawSlip } from '../../demo/drawReceipt.ts';
import { addDays } from '../../core/numbers/isoDate.ts';
import { drop } from './files.ts';
import { pageOf, tabTo } from './people.ts';

const today = new Date().toISOString().slice(0, 10);
async function press(page: Page, name: string | RegExp): Promise<void> {
  await tabTo(page, page.getByRole('button', { name }).first());
  await page.keyboard.press('Enter');
}
async function type(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, page.getByLabel(label, { exact: true }));
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}
const saved = (page: Page) => expect(page.getByText('All is saved')).toBeVisible();

/** Leaves the person as they were, for the stories that follow: no code first, no coding saved, nothing that comes again. */
async function forget(page: Page): Promise<void> {
  const { request } = page;
  const number = page.url().split('/').at(-1)!;
  await request.put('/api/own/codes/favourites', { data: { dimension: 'costCentre', code: '440', on: false } });
  for (const { id } of (await (await request.get('/api/own/codes')).json()).codings)
    await request.delete(`/api/own/codes/codings/${id}`);
  for (const { id } of (await (await request.get(`/api/drafts/${number}/recurring`)).json()).lines) {
    const { claim } = await (await request.get(`/api/claims/${number}`)).json();
    await request.delete(`/api/drafts/${number}/recurring/${id}?revision=${claim.revision}`);
  }
}

test('a claim is a copy, its line is taxed, divided, saved as a coding and repeated; by keyboard alone', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/claims');
  await press(page, 'New claim');
  await tabTo(page, page.getByLabel('Begin with'));
  await page.keyboard.type('a copy of C-1017');
  await tabTo(page, page.getByLabel('What it is for'));
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Once more to the mouth');
  await page.keyboard.press('Enter');
  await page.waitForURL(/claims\/C-1\d+$/);
  await expect(page.getByLabel('What the claim is for')).toHaveValue('Once more to the mouth');
  const table = page.getByRole('table', { name: 'Lines' });
  await expect(table.getByLabel(/^Merchant of line/)).not.toHaveCount(0);

  // prices without tax become the amount of the line, with its tax
  await press(page, 'More of line 1');
  await press(page, /^Tax/);
  const taxes = page.getByRole('region', { name: 'Tax of line 1' });
  await press(page, 'Type prices without tax');
  await tabTo(page, page.getByLabel('Price without tax 1'));
  await page.keyboard.type('81,31');
  await tabTo(page, page.getByLabel('Tax of price 1'));
  await page.keyboard.type('IE-23');
  await tabTo(page, page.getByLabel('Outside tax'));
  await page.keyboard.type('2');
  await expect(taxes.getByText('The line becomes 102.01')).toBeVisible();
  await press(page, 'Take it over');
  await expect(page.getByLabel('Amount of line 1')).toHaveValue('102.01 EUR');
  await expect(taxes.getByText('81.31')).toBeVisible();

  // a split in the bench of the Sheet, saved as it is typed, then under a name
  await press(page, /^Split/);
  const shares = page.getByRole('region', { name: 'Split of line 1' });
  await press(page, 'Split it');
  await type(page, 'Value of share 1', '25');
  await expect(shares.getByText('25.50', { exact: true }).first()).toBeVisible();
  await expect(shares.getByText('76.51', { exact: true }).first()).toBeVisible();
  await saved(page);
  await tabTo(page, page.getByLabel('Saved codings for line 1'), 'Shift+Tab');
  await page.keyboard.press('S');
  const naming = page.getByRole('dialog', { name: 'Save this coding' });
  await naming.getByLabel('Its name').waitFor();
  await page.keyboard.type('Quarter and rest');
  await page.keyboard.press('Enter');
  await expect(naming).toBeHidden();
  await press(page, 'More of line 2');
  await tabTo(page, page.getByLabel('Saved codings for line 2'));
  await page.keyboard.type('Quarter');
  await expect(page.getByRole('button', { name: 'Split (2 shares)' })).toBeVisible();

  // a code that is kept first comes first from then on
  await tabTo(page, page.getByRole('combobox', { name: 'Cost centre of line 2' }), 'Shift+Tab');
  await page.keyboard.type('440');
  await page.keyboard.press('Alt+s');
  await expect(page.getByRole('option', { name: /440/ })).toContainText('kept first');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: 'Cost centre of line 2' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[cmdk-item]').nth(1)).toContainText('440');
  await page.keyboard.press('Escape');

  // what comes again is proposed, and is on the claim only when somebody says so
  const [year, month, day] = addDays(today, -40).split('-');
  await type(page, 'Date of line 2', `${month}${day}${year}`);
  await saved(page);
  await press(page, 'Repeat');
  await press(page, 'Have it come again');
  const due = page.getByRole('region', { name: 'Due again' });
  await expect(due.getByText(/every month, due/)).toBeVisible();
  const before = await table.getByLabel(/^Merchant of line/).count();
  await tabTo(page, due.getByRole('button', { name: 'Put it on the claim' }));
  await page.keyboard.press('Enter');
  await expect(table.getByLabel(/^Merchant of line/)).toHaveCount(before + 1);
  await expect(due).toBeHidden();

  // the cover has what the page says
  const waiting = page.waitForEvent('download');
  await tabTo(page, page.getByRole('link', { name: 'Cover sheet with papers' }));
  await page.keyboard.press('Enter');
  const file = await readFile(await (await waiting).path());
  expect(file.subarray(0, 5).toString()).toBe('%PDF-');
  await forget(page);
  await page.context().close();
});

test('what is booked for a plan is a line of its claim, and a receipt is dropped on another and divided', async ({
  browser,
}) => {
  const hedda = await pageOf(browser, 'hedda.vestergaard');
  await hedda.goto('/plans');
  await hedda.getByRole('region', { name: 'Approved, to book for' }).getByText('Estuaries congress, Lisboa').click();
  await hedda.getByRole('button', { name: 'Record a booking' }).click();
  await hedda.getByRole('button', { name: 'Save the booking' }).click();
  await expect(hedda.getByRole('alert')).toHaveText('Say what is booked.');
  await hedda.getByLabel('What is booked').fill('Registration');
  await hedda.getByLabel('For the day').fill(today);
  await hedda.getByLabel('For the estimate').selectOption('1');
  await hedda.getByLabel('Confirmation').fill('EC-77');
  await hedda.getByLabel('Offer 1', { exact: true }).fill('Estuaries congress');
  await hedda.getByLabel('Price of offer 1').fill('300');
  await hedda.getByLabel('Offer 1 was taken').check();
  await hedda.getByRole('button', { name: 'Save the booking' }).click();
  const booking = hedda.getByRole('region', { name: 'Bookings' }).getByRole('listitem').first();
  await expect(booking).toContainText('Registration');
  const paper = {
    name: 'registration.jpg',
    mimeType: 'image/jpeg',
    buffer: await drawSlip('Estuaries congress', today, '300.00'),
  };
  await booking.locator('input[type=file]').setInputFiles([paper]);
  await booking.getByRole('button', { name: 'registration.jpg', exact: true }).click();
  await expect(hedda.getByRole('dialog', { name: 'registration.jpg' }).getByRole('img')).toBeVisible();
  await hedda.context().close();

  const tomas = await pageOf(browser, 'tomas.brandao');
  await tomas.goto('/claims');
  await tomas.getByRole('button', { name: 'New claim' }).click();
  await tomas.getByLabel('Begin with').selectOption({ label: 'plan T-202, Estuaries congress, Lisboa' });
  await tomas.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(tomas.getByLabel('Merchant of line 1')).toHaveValue('Estuaries congress');
  await expect(tomas.getByLabel('Who paid line 1')).toHaveValue('central');
  await expect(tomas.getByLabel('Estimate of line 1')).toHaveValue('1');
  await expect(tomas.locator('#line-1').getByLabel('has a receipt')).toBeVisible();

  // a file dropped on a line is its receipt; what it shows beyond the line is in view while it is divided
  await tomas.getByLabel('Date of a new line').fill(today);
  await tomas.getByLabel('Merchant of a new line').fill('Casa da Ria');
  await tomas.getByRole('combobox', { name: 'Category of a new line' }).click();
  await tomas.getByPlaceholder('Words').fill('meal');
  await tomas.keyboard.press('Enter');
  await tomas.getByLabel('Amount of a new line').fill('60');
  await tomas.getByRole('button', { name: 'Add', exact: true }).click();
  const slip = { name: 'supper.jpg', type: 'image/jpeg', bytes: await drawSlip('Casa da Ria', today, '100.00') };
  await drop(tomas, tomas.locator('#line-2'), [slip]);
  await expect(tomas.locator('#line-2').getByLabel('has a receipt')).toBeVisible();
  await tomas.getByRole('button', { name: 'More of line 2' }).click();
  await tomas.getByRole('button', { name: 'Divide over lines' }).click();
  const division = tomas.getByRole('region', { name: 'Division of line 2' });
  await expect(division.getByText('Not yet claimed of the receipt')).toBeVisible({ timeout: 60_000 });
  await division.getByLabel('Amount of part 2').fill('25.50');
  await expect(division.getByRole('status')).toContainText('14.50');
  await division.getByRole('combobox', { name: 'Category of part 2' }).click();
  await tomas.getByPlaceholder('Words').fill('taxi');
  await tomas.keyboard.press('Enter');
  await division.getByRole('button', { name: 'Make 2 lines' }).click();
  await expect(tomas.getByLabel('Amount of line 3')).toHaveValue('25.50 EUR');
  await expect(tomas.locator('#line-3').getByLabel('has a receipt')).toBeVisible();

  // a file that is none says why by its name, and nothing is lost
  await drop(tomas, tomas.locator('#line-3'), [
    { name: 'virus.exe', type: 'application/x-msdownload', bytes: new Uint8Array([77, 90, 1, 2]) },
  ]);
  await expect(tomas.getByRole('status').getByText(/virus.exe/)).toBeVisible();
  await expect(tomas.locator('#line-3').getByLabel('has a receipt')).toBeVisible();
  await tomas.context().close();
});

test('on a phone a receipt is photographed, confirmed, put on the claim of a plan and handed in', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'wanjiru.mbaya');
  await page.setViewportSize({ width: 390, height: 780 });
  const fits = async () =>
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const send = (path: string, data: object) => page.request.fetch(`/api${path}`, { method: 'POST', data });
  const put = (path: string, data: object) => page.request.fetch(`/api${path}`, { method: 'PUT', data });
  const plan = {
    purpose: 'Gate training',
    kind: 'training',
    from: today,
    to: today,
    country: 'IE',
    coding: { costCentre: '410', fund: '10' },
  };
  const { number } = await (await send('/plans', plan)).json();
  const { estimates } = await (await page.request.get(`/api/plans/${number}`)).json();
  let revision = 1;
  for (const { id } of estimates) {
    const set = { price: { amount: '50.00', currency: 'EUR' }, count: 1 };
    revision = (await (await put(`/plans/${number}/estimates`, { revision, ids: [id], set })).json()).plan.revision;
  }
  expect((await send(`/plans/${number}/submit`, { revision })).status()).toBe(200);
  const boss = await pageOf(browser, 'siobhan.odowd');
  await boss.setViewportSize({ width: 390, height: 780 });
  await boss.goto(`/plans/${number}`);
  await boss.getByRole('button', { name: 'Approve…' }).click();
  await boss.keyboard.press('Enter');
  await expect(boss.getByText(/It is approved and waits/)).toBeVisible();
  await boss.context().close();

  await page.goto(`/plans/${number}`);
  await fits();
  await page.getByRole('button', { name: 'Begin the claim' }).click();
  await page.waitForURL(/claims\/C-/);
  const claim = page.url().split('/').at(-1)!;
  await fits();
  await page.goto('/gather/receipts');
  const photo = { name: 'IMG_0002.jpg', mimeType: 'image/jpeg', buffer: await drawSlip('Ariake Hall', today, '84.00') };
  await page.getByLabel('Take a picture').and(page.locator('input')).setInputFiles([photo]);
  const row = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('checkbox') })
    .filter({ hasText: 'IMG_0002.jpg' });
  await expect(row).toContainText('84.00', { timeout: 60_000 });
  await fits();
  await row.getByRole('link').click();
  await page.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByText('Confirmed', { exact: true })).toBeVisible();
  await fits();
  await page.goto('/gather/receipts');
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Put on a claim…' }).click();
  const take = page.getByRole('form', { name: 'Put on a claim' });
  await take.getByRole('combobox', { name: 'Claim', exact: true }).selectOption(claim);
  await take.getByLabel(/^Category of/).selectOption('fee');
  await fits();
  await take.getByRole('button', { name: /Put 1 on/ }).click();
  await page.waitForURL(new RegExp(claim));
  await expect(page.getByLabel('Amount of line 1')).toHaveValue('84.00 EUR');
  await page.getByLabel('Estimate of line 1').selectOption({ index: 1 });
  await fits();
  await page.getByRole('button', { name: /^Submit…/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Submit it?' });
  // the hall cost more than was planned
  const word = dialog.getByRole('textbox');
  await word.fill('The hall was larger');
  await word.press('Enter');
  await dialog.getByRole('checkbox').check();
  await dialog.getByRole('button', { name: 'Submit', exact: true }).click();
  await expect(page.getByText(/is submitted/)).toBeVisible();
  await fits();
  await page.context().close();
});
