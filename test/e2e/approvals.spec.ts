import { expect, test, type Browser, type Page } from '@playwright/test';
import { todayHere } from '../../web/parts/today.ts';
import { addDays } from '../../core/numbers/isoDate.ts';
import { goToRow, pageOf, tabTo } from './people.ts';

const yesterday = addDays(todayHere(), -1);

/** A claim of Tomás with these lines, handed in over HTTP; its number. */
async function handedIn(page: Page, purpose: string, lines: object[]): Promise<string> {
  const send = async (path: string, data: object) => {
    const answer = await page.request.post(`/api${path}`, { data });
    expect([path, answer.status(), answer.ok() ? '' : await answer.text()]).toEqual([path, answer.status(), '']);
    return answer.json();
  };
  const { number } = await send('/drafts', { purpose, coding: { costCentre: '430', fund: '10' } });
  const written = await send(`/drafts/${number}/lines`, { revision: 1, lines });
  let { claim } = written;
  for (const { line, code, says } of written.findings.filter((f: { severity: string }) => f.severity === 'ask')) {
    const said = { revision: claim.revision, line, code, about: says, text: 'It was agreed.' };
    ({ claim } = await (await page.request.put(`/api/drafts/${number}/explanations`, { data: said })).json());
  }
  await send(`/claims/${number}/submit`, { revision: claim.revision, accepted: 'policy' });
  return number;
}
const line = (amount: string, merchant: string, coding: object) => ({
  ...{ date: yesterday, amount: { amount, currency: 'EUR' }, category: 'supplies', merchant, coding },
});

/** Opens a record that waits from the list, by keyboard alone, and approves it. */
async function approve(browser: Browser, mail: string, number: string): Promise<void> {
  const page = await pageOf(browser, mail);
  await page.goto('/approvals');
  const row = page.getByRole('link', { name: new RegExp(number) }).first();
  await goToRow(page, row);
  await page.keyboard.press('Enter');
  await page.waitForURL(new RegExp(`/${number}$`));
  await page.getByRole('button', { name: 'Approve', exact: true }).waitFor();
  await page.keyboard.press('y');
  await expect(page.getByText(`${number} is approved`)).toBeVisible();
  await page.context().close();
}

test('a claim over three tiers, with its owners and a substitute, is approved by keyboard alone', async ({
  browser,
}) => {
  const keeper = await pageOf(browser, 'leilani.kahue');
  const away = { person: 'P03', substitute: 'P02' };
  const rows = await (await keeper.request.get('/api/setup/substitutes')).json();
  const revision = rows.rows.find((r: { key: string[] }) => r.key[0] === 'P03')?.revision ?? 0;
  const put = { revision, row: away, validFrom: yesterday, validTo: null };
  expect((await keeper.request.post('/api/setup/substitutes', { data: put })).status()).toBeLessThan(300);

  const tomas = await pageOf(browser, 'tomas.brandao');
  const number = await handedIn(tomas, 'Boats for the whole season', [
    line('1600.00', 'Bannow Boats', { costCentre: '430', fund: '10', project: 'FLAT-07', spendType: 'materials' }),
    line('4400.00', 'Wexford Chandlery', { costCentre: '430', fund: '10' }),
  ]);
  await tomas.goto(`/claims/${number}`);
  const route = tomas.getByRole('region', { name: 'Who decides about it' });
  await expect(route).toContainText('Siobhán O’Dowd');
  await expect(route).toContainText('Ren Isshiki Owners of projects and grants, about project FLAT-07');
  await expect(route).toContainText('Odd Fjellheim: they are away; Inês Quadros decides, their substitute');

  await approve(browser, 'siobhan.odowd', number);
  await approve(browser, 'ren.isshiki', number);
  await approve(browser, 'ines.quadros', number);
  await tomas.reload();
  await expect(tomas.getByText(/It is with finance, in review/)).toBeVisible();
  await expect(route.getByText('yes by Inês Quadros')).toBeVisible();

  const end = { revision: revision + 1, key: ['P03'], on: yesterday };
  expect((await keeper.request.post('/api/setup/substitutes/end', { data: end })).status()).toBeLessThan(300);
});

test('an approver on a phone declines a line, approves the rest and takes it back', async ({ browser }) => {
  const tomas = await pageOf(browser, 'tomas.brandao');
  const number = await handedIn(tomas, 'Nets and a supper', [
    line('24.00', 'Leeside Nets', { costCentre: '430', fund: '10' }),
    line('9.50', 'Quay Supper', { costCentre: '430', fund: '10' }),
  ]);
  const phone = await pageOf(browser, 'siobhan.odowd');
  await phone.setViewportSize({ width: 390, height: 780 });
  await phone.goto('/approvals');
  const fits = async () =>
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.getByRole('link', { name: new RegExp(number) }).click();
  await phone.getByRole('button', { name: 'Decline line 2…' }).click();
  await phone.getByLabel('Why line 2 is declined').fill('Supper was part of the lodging.');
  await phone.getByRole('button', { name: 'Decline the line' }).click();
  await expect(phone.getByText('Line 2: 9.50 EUR declined, left out')).toBeVisible();
  await fits();
  await phone.getByRole('button', { name: 'Approve' }).click();
  await expect(phone.getByText(/It is with finance, in review/)).toBeVisible();
  await phone.getByRole('link', { name: 'Back to your approvals' }).click();
  await phone.getByRole('button', { name: `Take back ${number}` }).click();
  await expect(phone.getByText(`${number} waits for you again`)).toBeVisible();
  await expect(phone.getByRole('link', { name: new RegExp(number) }).first()).toContainText('24.00');
  await fits();
});

test('what is usual is approved together from the list, and taken back as one', async ({ browser }) => {
  const page = await pageOf(browser, 'siobhan.odowd');
  await page.goto('/approvals');
  const usual = page.getByRole('checkbox', { name: /^Choose C-102/ });
  await expect(usual).toHaveCount(2);
  await tabTo(page, page.locator('[data-row]').first());
  for (const number of ['C-1024', 'C-1025']) {
    const row = page.getByRole('link', { name: new RegExp(number) }).first();
    for (let i = 0; i < 30 && !(await row.evaluate((e) => e === document.activeElement)); i += 1)
      await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Space');
  }
  await page.keyboard.press('y');
  await expect(page.getByText('2 are approved')).toBeVisible();
  await expect(usual).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(usual).toHaveCount(2);
});
