import { expect, test, type Page } from '@playwright/test';
import { paste } from './paste.ts';
import { pageOf, tabTo } from './people.ts';

const BLOCK = [
  'Date\tMerchant\tWhat\tCategory\tAmount',
  '2026-11-02\tEstuaries congress\tRegistration\tConference or training fee\t310,00',
  '2026-11-03\tPensão do Cais\tThree nights\tLodging\t351,00',
  '2026-11-04\tTáxi Silva\tFrom the airport\tTaxi\t17,50',
  '2026-11-05\tTáxi Silva\tTo the airport\tTaxi\t17,50',
  '2026-11-04\tCafé Maré\tSupper\tMeal\t19,00',
  '2026-11-05\tCafé Maré\tLunch\tMeal\t12,00',
].join('\n');

async function press(page: Page, name: string | RegExp): Promise<void> {
  await tabTo(page, page.getByRole('button', { name }).first());
  await page.keyboard.press('Enter');
}
/** Types into a field that is reached by Tab, and leaves it by Enter. */
async function type(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, page.getByRole('textbox', { name: label, exact: true }));
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}
const saved = (page: Page) => expect(page.getByText('All is saved')).toBeVisible();

test('a plan is approved, becomes a claim, and its lines stand beside its estimates on the Desk; by keyboard alone', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/plans');
  await press(page, 'New plan');
  await expect(page.getByLabel('What the trip is for')).toBeFocused();
  await page.keyboard.type('Estuaries congress');
  await tabTo(page, page.getByLabel('Kind of trip'));
  await page.keyboard.type('Conf');
  await tabTo(page, page.getByLabel('Country'));
  await page.keyboard.type('pt');
  await tabTo(page, page.getByLabel('First day'));
  await page.keyboard.type('11022026');
  await tabTo(page, page.getByLabel('Last day'));
  await page.keyboard.type('11052026');
  await page.keyboard.press('Enter');

  // what the limits know is there, what they do not is asked for, with a way to it
  const estimates = page.getByRole('table', { name: 'Estimates' });
  await expect(estimates.getByText('limit lodging-pt')).toBeVisible();
  await expect(page.getByLabel('Price of estimate 3')).toHaveValue('120.00 EUR');
  await expect(page.getByText('3 things to look at')).toBeVisible();
  await press(page, 'estimate 1');
  await expect(page.getByLabel('Price of estimate 1')).toBeFocused();
  await page.keyboard.type('310');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Price of estimate 2')).toBeFocused();
  await page.keyboard.type('two hundred');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Type an amount such as 12.50, or 900 JPY.');
  await type(page, 'Price of estimate 2', '180 gbp');
  await type(page, 'Price of estimate 5', '18');
  await saved(page);
  await expect(page.getByRole('region', { name: 'Problems' })).toBeHidden();

  // a coding that does not go together is mended on several at once, seen first
  await tabTo(page, page.locator('#main').getByRole('button', { expanded: false }).first(), 'Shift+Tab');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('combobox', { name: 'Fund of the plan' }));
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await expect(page.getByText('5 things to look at')).toBeVisible();
  for (const id of ['1', '2', '3', '4', '5']) {
    await tabTo(page, page.getByRole('checkbox', { name: `Choose estimate ${id}` }));
    await page.keyboard.press('Space');
  }
  await tabTo(page, page.getByRole('combobox', { name: 'Fund of the chosen estimates' }));
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Nothing is left to look at.')).toBeVisible();
  await press(page, 'Put on');
  await expect(page.getByRole('region', { name: 'Problems' })).toBeHidden();
  await press(page, 'Send for approval');
  await expect(page.getByText(/It is with Siobhán O’Dowd/)).toBeVisible();

  const boss = await pageOf(browser, 'siobhan.odowd');
  await boss.goto('/approvals');
  await tabTo(boss, boss.locator('[data-row]').first());
  const mine = boss.getByRole('link', { name: /Estuaries congress/ }).first();
  for (let i = 0; i < 12 && !(await mine.evaluate((e) => e === document.activeElement)); i += 1)
    await boss.keyboard.press('ArrowDown');
  await boss.keyboard.press('Enter');
  await press(boss, 'Approve…');
  await boss.keyboard.type('Greet them from me.');
  await boss.keyboard.press('Enter');
  await expect(boss.getByText(/It is approved and waits/)).toBeVisible();

  await page.reload();
  await expect(page.getByText(/Greet them from me/)).toBeVisible();
  await press(page, 'Begin the claim');
  await tabTo(page, page.getByLabel('Merchant of a new line'));
  await paste(page, BLOCK);
  const review = page.getByRole('dialog', { name: 'Lines from what was pasted' });
  await tabTo(page, review.getByRole('button', { name: 'Add 6 lines' }));
  await page.keyboard.press('Enter');
  await press(page, /^Put all/);
  const lodging = page.getByRole('listitem').filter({ hasText: 'Lodging' });
  await expect(lodging.getByText('351.00 spent')).toBeVisible();
  await expect(page.getByLabel('Estimate of line 3')).toHaveValue('5');
  await expect(page.getByRole('listitem').filter({ hasText: 'Taxi' }).getByText('35.00 spent')).toBeVisible();

  // mileage and days away are computed, never typed
  await tabTo(page, page.getByLabel('Date of a new line'));
  await page.keyboard.type('11022026');
  for (const category of ['mileage', 'daily']) {
    await tabTo(page, page.getByRole('combobox', { name: 'Category of a new line' }));
    await page.keyboard.type(category);
    await page.keyboard.press('Enter');
    await type(page, 'Amount of a new line', '');
    await saved(page);
  }
  await press(page, 'More of line 7');
  await type(page, 'Distance of line 7', '84,5');
  await expect(page.locator('#line-7').getByText('35.49 EUR')).toBeVisible();
  await press(page, 'More of line 8');
  await press(page, /^Days from 2026-11-02 to 2026-11-05/);
  await tabTo(page, page.getByRole('checkbox', { name: 'dinner provided on 2026-11-03' }), 'Shift+Tab');
  await page.keyboard.press('Space');
  // 46.00 a day in Portugal: 34.50 + 46.00 − 18.40 + 46.00 + 34.50
  await expect(page.locator('#line-8').getByText('142.60 EUR')).toBeVisible();

  // lines on an estimate took its coding; the others have the claim's, which does not go together
  await expect(page.getByText('4 things to look at')).toBeVisible();
  await tabTo(page, page.locator('#main').getByRole('button', { expanded: false }).first(), 'Shift+Tab');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('combobox', { name: 'Fund of the claim' }));
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 things to look at')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const submit = page.getByRole('dialog', { name: 'Submit it?' });
  await expect(submit.getByText(/2 \(.*EUR\)/)).toBeVisible();
  const words = submit.getByRole('textbox');
  await expect(words).toHaveCount(2);
  for (let i = 0; i < (await words.count()); i += 1) {
    await tabTo(page, words.nth(i));
    await page.keyboard.type('As the programme says');
  }
  await tabTo(page, submit.getByRole('checkbox'));
  await page.keyboard.press('Space');
  await tabTo(page, submit.getByRole('button', { name: 'Submit' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText(/is submitted/)).toBeVisible();
  const number = page.url().split('/').at(-1)!;

  await boss.goto(`/claims/${number}`);
  await expect(boss.getByText('“As the programme says”').first()).toBeVisible();
  await press(boss, 'Approve');
  await expect(boss.getByText(/is approved/)).toBeVisible();
  const desk = await pageOf(browser, 'maeve.tarrant');
  await desk.goto(`/desk/${number}`);
  await expect(desk.getByRole('columnheader', { name: 'plan' })).toBeVisible();
  await expect(desk.getByText('“As the programme says”').first()).toBeVisible();
});
