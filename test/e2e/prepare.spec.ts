import { expect, test } from '@playwright/test';
import { paste } from './paste.ts';
import { pageOf, tabTo } from './people.ts';

const FILE = [
  'Date\tMerchant\tWhat\tCategory\tAmount',
  '03/11/2026\tCafé Maré\tLunch\tMeal\t12,50',
  '03/11/2026\tTáxi Silva\tTo the pier\tTaxi\t8,20',
  '04/11/2026\tLoja do Rio\t"Rope; tape"\tField supplies\t21,00',
].join('\n');

test('a claim is begun, typed, pasted, corrected and submitted, with the keyboard alone', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/claims');
  await tabTo(page, page.getByRole('button', { name: 'New claim' }));
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('What it is for')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Say what the claim is for.');
  await page.keyboard.type('Tern survey, Ria Formosa');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('What the claim is for')).toHaveValue('Tern survey, Ria Formosa');

  await tabTo(page, page.getByLabel('Date of a new line'));
  await page.keyboard.type('11022026');
  await tabTo(page, page.getByLabel('Merchant of a new line'));
  await page.keyboard.type('Pensão do Cais');
  await tabTo(page, page.getByRole('combobox', { name: 'Category of a new line' }));
  await page.keyboard.type('field');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByLabel('Amount of a new line'));
  await page.keyboard.type('twenty');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Type an amount such as 12.50, or 900 JPY.');
  await page.getByLabel('Amount of a new line').press('Control+a');
  await page.keyboard.type('1500 jpy');
  await page.keyboard.press('Enter');
  const lines = page.getByRole('table', { name: 'Lines' });
  await expect(lines.getByLabel('Amount of line 1')).toHaveValue('1\u2009500 JPY');
  await expect(page.getByText('All is saved')).toBeVisible();

  await paste(page, `${FILE}\n2026-02-31\tNobody\t\tMeal\t5,00`);
  const review = page.getByRole('dialog', { name: 'Lines from what was pasted' });
  await expect(review.getByText('"2026-02-31" is not a date')).toBeVisible();
  await expect(review.getByText(/1 of 4 rows cannot be read/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(review).toBeHidden();
  await page.getByLabel('Merchant of a new line').focus();
  await paste(page, FILE);
  await tabTo(page, review.getByRole('button', { name: 'Add 3 lines' }));
  await page.keyboard.press('Enter');
  await expect(lines.getByLabel('What line 4 was for')).toHaveValue('Rope; tape');

  // Enter saves and goes down the column; Escape takes back what was typed
  await tabTo(page, lines.getByLabel('Merchant of line 2'));
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Café da Ilha');
  await page.keyboard.press('Enter');
  await expect(lines.getByLabel('Merchant of line 3')).toBeFocused();
  await page.keyboard.type(' e filhos');
  await page.keyboard.press('Escape');
  await expect(lines.getByLabel('Merchant of line 3')).toHaveValue('Táxi Silva');
  await page.reload();
  await expect(lines.getByLabel('Merchant of line 2')).toHaveValue('Café da Ilha');

  await tabTo(page, page.getByRole('button', { name: 'More of line 4' }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByLabel('Count and unit price of line 4'));
  await page.keyboard.type('2 x 9,75');
  await page.keyboard.press('Enter');
  await expect(lines.getByLabel('Amount of line 4')).toHaveValue('19.50 EUR');

  await tabTo(page, page.getByRole('button', { name: 'Submit…' }));
  await page.keyboard.press('Enter');
  const submit = page.getByRole('dialog', { name: 'Submit it?' });
  await expect(submit.getByText('Siobhán O’Dowd')).toBeVisible();
  const words = submit.getByRole('textbox');
  for (let i = 0; i < (await words.count()); i += 1) {
    await tabTo(page, words.nth(i));
    await page.keyboard.type('As agreed');
  }
  await expect(submit.getByRole('button', { name: 'Submit' })).toBeDisabled();
  await tabTo(page, submit.getByRole('checkbox'));
  await page.keyboard.press('Space');
  await tabTo(page, submit.getByRole('button', { name: 'Submit' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText(/is submitted/)).toBeVisible();
  await expect(page.getByRole('table', { name: 'Lines' })).toBeHidden();
});

test('two people at once lose nothing, and what is typed while the server is away is sent later', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/claims');
  await page.getByRole('button', { name: 'New claim' }).click();
  await page.getByLabel('What it is for').fill('Plover count');
  await page.keyboard.press('Enter');
  await page.getByLabel('Date of a new line').fill('2026-11-02');
  await page.getByLabel('Merchant of a new line').fill('Quay Stores');
  await page.getByRole('combobox', { name: 'Category of a new line' }).press('m');
  await page.keyboard.type('eal');
  await page.getByRole('option', { name: /^meals?\b/i, selected: true }).waitFor();
  await page.keyboard.press('Enter');
  await page.getByLabel('Amount of a new line').fill('9');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Merchant of line 1')).toHaveValue('Quay Stores');

  // on another device: tabs of one browser tell each other
  const other = await pageOf(browser, 'tomas.brandao');
  await other.goto(page.url());
  await other.getByLabel('What line 1 was for').fill('Lunch');
  await other.keyboard.press('Tab');
  await expect(other.getByText('All is saved')).toBeVisible();
  await page.getByLabel('Merchant of line 1').fill('Pier Café');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('What line 1 was for')).toHaveValue('Lunch');

  // the same field: what is typed stays in it, and is sent once more or taken back
  await other.reload();
  await other.getByLabel('Merchant of line 1').fill('Harbour Café');
  await other.keyboard.press('Tab');
  await expect(other.getByText('All is saved')).toBeVisible();
  await page.getByLabel('Merchant of line 1').fill('Quay Café');
  await page.keyboard.press('Tab');
  await expect(page.getByText('Somebody else changed this meanwhile.', { exact: false })).toBeVisible();
  await page.getByLabel('Merchant of line 1').press('Enter');
  await expect(page.getByText('All is saved')).toBeVisible();
  await other.reload();
  await expect(other.getByLabel('Merchant of line 1')).toHaveValue('Quay Café');

  await page.route('**/api/drafts/**', (route) => route.abort());
  await page.getByLabel('What line 1 was for').fill('Supper');
  await page.keyboard.press('Tab');
  await expect(page.getByText('The server does not answer.')).toBeVisible();
  await page.unroute('**/api/drafts/**');
  await expect(page.getByText('All is saved')).toBeVisible();
  await other.reload();
  await expect(other.getByLabel('What line 1 was for')).toHaveValue('Supper');

  const goTo = async (typed: string, option: RegExp) => {
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('combobox', { name: 'Go to' })).toBeFocused();
    await page.keyboard.type(typed);
    await page.getByRole('option', { name: option }).waitFor();
    await page.keyboard.press('Enter');
  };
  // another claim, reached without leaving the page, gets its own edits
  await page.goto('/claims/C-1031');
  const purpose = page.getByLabel('What the claim is for');
  await expect(purpose).toHaveValue(/Sluice gates/);
  await goTo('plover', /Plover/);
  await expect(purpose).toHaveValue('Plover count');
  await goTo('sluice', /Sluice/);
  await expect(purpose).toHaveValue(/Sluice gates/);
  await goTo('plover', /Plover/);
  await expect(purpose).toHaveValue('Plover count');
  await purpose.fill('Plover count, north shore');
  await page.keyboard.press('Tab');
  await expect(page.getByText('All is saved')).toBeVisible();
  await page.reload();
  await expect(purpose).toHaveValue('Plover count, north shore');
});
