import { expect, type Browser, type Locator, type Page } from '@playwright/test';

/** Signs in by typing alone and waits for the person's first place. */
export async function signIn(page: Page, mail: string): Promise<void> {
  await page.goto('/');
  await expect(page.getByLabel('E-mail')).toBeFocused();
  await page.keyboard.type(`${mail}@saltmarsh.example`);
  await page.keyboard.press('Tab');
  await page.keyboard.type('saltmarsh');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
}

/** A page of its own, signed in over HTTP, for tests that are not about signing in. */
export async function pageOf(browser: Browser, mail: string): Promise<Page> {
  const context = await browser.newContext();
  const answer = await context.request.post('/api/session', {
    data: { email: `${mail}@saltmarsh.example`, password: 'saltmarsh' },
  });
  expect(answer.status()).toBe(201);
  return context.newPage();
}

/** Presses Tab, or Shift and Tab, until an element has the focus, as somebody without a mouse does. */
export async function tabTo(page: Page, target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await target.waitFor();
  for (let i = 0; i < 240; i += 1) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press(key);
  }
  throw new Error(`Tab does not reach ${String(target)}`);
}

/** Goes to a row of a list as somebody without a mouse does: into the list, then down. */
export async function goToRow(page: Page, row: Locator): Promise<void> {
  await row.waitFor();
  await tabTo(page, page.locator('[data-row]').first());
  for (let i = 0; i < 40; i += 1) {
    if (await row.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('ArrowDown');
  }
  throw new Error(`the arrow does not reach ${String(row)}`);
}

/** Presses a key until a locator is there. */
export async function pressUntil(page: Page, key: string, wanted: Locator): Promise<void> {
  for (let i = 0; i < 40; i += 1) {
    if (await wanted.count()) return;
    await page.keyboard.press(key);
    await wanted.waitFor({ timeout: 400 }).catch(() => undefined);
  }
  throw new Error(`${key} does not lead to ${String(wanted)}`);
}

export async function signOut(page: Page): Promise<void> {
  await tabTo(page, page.getByRole('button', { name: 'Sign out' }));
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('E-mail')).toBeVisible();
}

/** Chooses a code by typing it. */
export async function chooseCode(page: Page, label: string, code: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByPlaceholder('Code or words').fill(code);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: label })).toContainText(code);
}
