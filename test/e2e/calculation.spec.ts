import { expect, test, type Page } from '@playwright/test';
import { pageOf } from './people.ts';

/** The journal of a Sheet, open. */
async function journalOf(page: Page, number: string) {
  await page.goto(`/desk/${number}`);
  await page.getByRole('heading', { name: /Line \d/ }).waitFor();
  await page.keyboard.press('j');
  const journal = page.getByRole('group', { name: 'Journal rows' });
  await expect(journal).toBeVisible();
  return journal;
}

test('card charges, items, private parts, self-assessed tax and splits show in sum and journal', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  const journal = await journalOf(page, 'C-1006');
  await expect(page.getByLabel('Settlement')).toHaveText(
    /1\s259\.47 claimed − 779\.47 company-paid − 49\.02 private − 0\.00 advances = 430\.98\s*EUR to pay/,
  );
  await expect(journal.getByRole('row', { name: /Output tax Ireland, self-assessed/ })).toContainText('110.40');
  await expect(journal.getByRole('row', { name: /Input tax Ireland/ })).toContainText('110.40');
  await expect(journal.getByRole('row', { name: /Card clearing 4410/ })).toContainText('686.91');
  await expect(journal.getByRole('row', { name: /Payable to claimants/ })).toContainText('430.98');
  await expect(journal.getByRole('row', { name: /G-118/ })).toContainText('288.00');
  await page.getByText('Every figure of line 1').click();
  await expect(page.getByText('gross × rate; code IE-SA23, gross 480.00, rate 0.23')).toBeVisible();
});

test('an advance in shillings is used unit for unit, and what is left of the lines is paid', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  const journal = await journalOf(page, 'C-1003');
  const settlement = page.getByLabel('Settlement');
  await expect(settlement).toContainText(/412\.70 company-paid − 0\.00 private − 4\d\d\.\d\d advances =/);
  // how much is used in euro follows from the rate of the day; the sum holds whatever it was
  const [claimed, company, own, advances, toPay] = (await settlement.innerText())
    .replaceAll(/\s/g, '')
    .match(/\d{1,6}\.\d\d/g)!
    .map((amount) => Number(amount.replace('.', '')));
  expect(claimed! - company! - own! - advances!).toBe(toPay);
  const used = journal.getByRole('row', { name: /Staff advances/ });
  await expect(used).toContainText(/−60\s000\.00 KES/);
  // what it was paid out for leaves the account; what the rate of the day makes of it otherwise is an exchange difference
  await expect(used).toContainText('428.57');
  const difference = Math.abs(42857 - advances!);
  const exchange = journal.getByRole('row', { name: /Exchange differences/ });
  if (difference === 0) await expect(exchange).toHaveCount(0);
  else await expect(exchange).toContainText((difference / 100).toFixed(2));
  await expect(journal.getByRole('row', { name: /Central bookings clearing/ })).toContainText('412.70');
});

test('a claimant’s own rate is compared with the published one, and the supplier’s account is credited', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  const journal = await journalOf(page, 'C-1004');
  await expect(
    page.getByText(/The claimant's rate 1\.24 from GBP to EUR is \d\.\d+ % from the published/),
  ).toBeVisible();
  await expect(journal.getByRole('row', { name: /Payable to suppliers/ })).toBeVisible();
});

test('three decimals, none, and a refund stand in one claim', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  const journal = await journalOf(page, 'C-1010');
  await page.keyboard.press('j');
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByRole('row', { name: /Gulf Roaming/ })).toContainText(/18\.750\s*BHD/);
  await expect(page.getByRole('row', { name: /Nidelv Taxi/ })).toContainText(/−120\.00\s*NOK/);
  await page.keyboard.press('j');
  await expect(journal.getByRole('row', { name: /Telephone/ })).toContainText('18.750 BHD');
});
