import { expect, test } from '@playwright/test';
import { pageOf, signIn } from './people.ts';

test('any place, claim, person or code is reached by Ctrl K and a few letters', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  await page.goto('/desk');
  await page.getByRole('heading', { name: 'Desk' }).waitFor();
  await page.keyboard.press('Control+k');
  const dialog = page.getByRole('dialog', { name: 'Go to' });
  await expect(dialog.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('ledg');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/ledger$/);
  await expect(dialog).toHaveCount(0);

  await page.keyboard.press('Control+k');
  await page.keyboard.type('1020');
  await expect(dialog.getByRole('option', { name: /C-1020/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/desk\/C-1020$/);

  await page.keyboard.press('Control+k');
  await page.keyboard.type('REED');
  await expect(dialog.getByRole('option', { name: /REED-11.*Reed-bed survey/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.context().close();
});

test('a page says in its tab what it is, and wears the system’s colours until somebody chooses others', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ colorScheme: 'dark' })).newPage();
  const shown = () => page.evaluate(() => document.documentElement.dataset.theme);
  await page.goto('/');
  await expect(page).toHaveTitle('Sign in · Ebbet');
  expect(await shown()).toBe('ebbet-night');
  await signIn(page, 'maeve.tarrant');
  await page.goto('/desk/C-1009');
  await expect(page).toHaveTitle('C-1009 · Desk · Ebbet');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect.poll(shown).toBe('ebbet-day');
  await page.getByRole('button', { name: 'Night colours' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Day colours' })).toBeVisible();
  expect(await shown()).toBe('ebbet-night');
});
