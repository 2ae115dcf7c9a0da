import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { pageOf } from './people.ts';
import { views } from './views.ts';

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

/** A page of somebody's, in the browser they signed in with before: a view is opened, not the whole application again. */
const signedIn = new Map<string | null, Page>();
async function anotherPageOf(browser: Browser, who: string | null): Promise<Page> {
  const first = signedIn.get(who) ?? (who ? await pageOf(browser, who) : await (await browser.newContext()).newPage());
  signedIn.set(who, first);
  return first.context().newPage();
}

for (const view of views)
  test(`axe finds nothing by day, and no faint colours by night: ${view.name}`, async ({ browser }) => {
    const page = await anotherPageOf(browser, view.who);
    const noise: string[] = [];
    page.on('pageerror', (error) => noise.push(error.message));
    page.on(
      'console',
      (message) => message.type() === 'error' && !/status of 4\d\d/.test(message.text()) && noise.push(message.text()),
    );
    await view.open(page);
    // at the end of a page nothing lies under its foot, which is no smaller for what is scrolled under it elsewhere
    await page.evaluate(() => document.querySelector('[data-foot]') && scrollTo(0, document.body.scrollHeight));
    expect(await violationsOf(new AxeBuilder({ page }).withTags(ALL_RULES))).toEqual([]);
    await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'ebbet-night'));
    await page.waitForTimeout(COLOURS_SETTLE_MS);
    expect(await violationsOf(new AxeBuilder({ page }).withRules(['color-contrast']))).toEqual([]);
    expect(noise).toEqual([]);
    await page.close();
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
  await expect(page.getByRole('table', { name: 'Claims' })).toBeVisible();
});
