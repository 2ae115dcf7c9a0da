import { expect, test, type Page } from '@playwright/test';
import { generateSync } from 'otplib';
import { pageOf, tabTo } from './people.ts';

const NEW = 'seven herons at low tide';

/** Fills in the sign-in by typing alone. */
async function enter(page: Page, mail: string, password: string): Promise<void> {
  await expect(page.getByLabel('E-mail')).toBeFocused();
  await page.keyboard.type(`${mail}@saltmarsh.example`);
  await page.keyboard.press('Tab');
  await page.keyboard.type(password);
  await page.keyboard.press('Enter');
}
const places = (page: Page) => page.getByRole('navigation', { name: 'Places' });

test('a password that was forgotten is set anew by the link of a mail', async ({ page, browser }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'I do not know my password' }).click();
  await page.getByLabel('E-mail').fill('pavel.hruska@saltmarsh.example');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status')).toContainText('a mail is on its way');

  const mail = await (await browser.newContext()).newPage();
  await expect(async () => {
    await mail.goto(process.env.EBBET_MAIL_URL!);
    await expect(mail.getByText('pavel.hruska@saltmarsh.example')).toBeVisible({ timeout: 500 });
  }).toPass();
  const link = (await mail.getByRole('link').first().getAttribute('href'))!;
  await page.goto(link);
  await page.getByLabel('New password').fill('short');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('at least 10 characters');
  await page.getByLabel('New password').fill('Password123');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('among the first that are guessed');
  await page.getByLabel('New password').fill(NEW);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status')).toContainText('Your new password holds');
  await page.getByRole('link', { name: 'Sign in' }).click();
  await enter(page, 'pavel.hruska', NEW);
  await expect(places(page)).toBeVisible();

  await mail.goto(link);
  await mail.getByLabel('New password').fill(NEW);
  await mail.keyboard.press('Enter');
  await expect(mail.getByRole('alert')).toContainText('This link was used');
});

test('a second factor is added, asked for, and lets in once by a code that was kept', async ({ browser }) => {
  const page = await pageOf(browser, 'aoi.kuramochi');
  await page.goto('/account');
  await tabTo(page, page.getByRole('button', { name: 'Add an authenticator' }));
  await page.keyboard.press('Enter');
  const secret = (await page.locator('p.font-mono').innerText()).replaceAll(' ', '');
  await expect(page.getByRole('img', { name: 'For the camera of your authenticator' })).toBeVisible();
  await page.getByLabel('The code it shows now').fill('000000');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('does not fit');
  await page.getByLabel('The code it shows now').fill(generateSync({ secret }));
  await page.keyboard.press('Enter');
  const kept = page.getByRole('status').filter({ hasText: 'Keep these codes' });
  await expect(kept.getByRole('listitem')).toHaveCount(10);
  const code = await kept.getByRole('listitem').first().innerText();

  await page.getByRole('button', { name: 'Sign out' }).click();
  await enter(page, 'aoi.kuramochi', 'saltmarsh');
  await expect(page.getByLabel('Code of your authenticator')).toBeFocused();
  await page.keyboard.type(code);
  await page.keyboard.press('Enter');
  await expect(places(page)).toBeVisible();
  await page.goto('/account');
  await expect(page.getByText('Codes left for a lost phone: 9')).toBeVisible();
});

test('finance works once the second factor is there that the organisation asks for', async ({ browser }) => {
  const keeper = await pageOf(browser, 'leilani.kahue');
  const row = { key: 'second-factor-for-finance', value: true };
  const set = (revision: number, value: boolean) =>
    keeper.request.post('/api/setup/settings', { data: { revision, row: { ...row, value } } });
  expect((await set(0, true)).status()).toBe(201);
  try {
    const page = await pageOf(browser, 'noor.aldosari');
    await page.goto('/');
    await expect(places(page).getByRole('link', { name: 'Desk' })).toHaveCount(0);
    await page.getByRole('link', { name: 'Add it to your account' }).click();
    await page.getByRole('button', { name: 'Add an authenticator' }).click();
    const secret = (await page.locator('p.font-mono').innerText()).replaceAll(' ', '');
    await page.getByLabel('The code it shows now').fill(generateSync({ secret }));
    await page.keyboard.press('Enter');
    await expect(places(page).getByRole('link', { name: 'Desk' })).toBeVisible();
  } finally {
    const { secret } = await (await keeper.request.post('/api/session/factor')).json();
    await keeper.request.put('/api/session/factor', { data: { code: generateSync({ secret }) } });
    expect((await set(1, false)).ok()).toBe(true);
    await keeper.request.post('/api/session/factor/end', { data: { current: 'saltmarsh' } });
  }
});
