import { expect, test, type Browser, type Page } from '@playwright/test';
import { addDays } from '../../core/numbers/isoDate.ts';
import { todayHere } from '../../web/parts/today.ts';
import { clear, handIn, post, viewOf } from '../fixtures/acts.ts';
import { clientOf } from './client.ts';
import { goToRow, pageOf, tabTo } from './people.ts';

async function press(page: Page, name: string | RegExp): Promise<void> {
  await tabTo(page, page.getByRole('button', { name }));
  await page.keyboard.press('Enter');
}
async function type(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, page.getByLabel(label));
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
}
/** Opens an advance from a list by keyboard alone, as somebody else. */
async function opened(browser: Browser, mail: string, list: string, number: string): Promise<Page> {
  const page = await pageOf(browser, mail);
  await page.goto(list);
  const row = page.getByRole('link', { name: new RegExp(number) }).first();
  await goToRow(page, row);
  await page.keyboard.press('Enter');
  await page.waitForURL(new RegExp(`/advances/${number}$`));
  return page;
}

test('an advance from the request to zero, by keyboard alone', async ({ browser }) => {
  const ines = await pageOf(browser, 'ines.quadros');
  await ines.goto('/advances');
  await press(ines, 'New advance');
  await ines.getByLabel('What the money is for').waitFor();
  await ines.keyboard.type('Cash for the ferrymen');
  await ines.keyboard.press('Tab');
  await ines.keyboard.type('200');
  await ines.keyboard.press('Enter');
  await ines.waitForURL(/\/advances\/A-\d+$/);
  const number = ines.url().split('/').at(-1)!;
  await expect(ines.getByRole('region', { name: 'Who decides about it' })).toContainText('Siobhán O’Dowd');
  await type(ines, 'Amount of the advance', '250,00 eur');
  await ines.keyboard.press('Tab');
  await expect(ines.getByLabel('Amount of the advance')).toHaveValue('250.00 EUR');
  await ines.keyboard.press('Control+Enter');
  await expect(ines.getByText(/It is with Siobhán O’Dowd/)).toBeVisible();

  const siobhan = await pageOf(browser, 'siobhan.odowd');
  await siobhan.goto('/approvals');
  await goToRow(siobhan, siobhan.getByRole('link', { name: new RegExp(number) }));
  await siobhan.keyboard.press('y');
  await expect(siobhan.getByText(`${number} is approved`)).toBeVisible();

  const maeve = await opened(browser, 'maeve.tarrant', '/advances', number);
  await press(maeve, 'Grant…');
  await type(maeve, 'Granted, in EUR', '200');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByRole('alert')).toHaveText('Say why it is less.');
  await type(maeve, 'Why it is less', 'The ferry is paid by card');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText(`${number} is granted`)).toBeVisible();
  await expect(maeve.getByText(/of 250.00 asked for/)).toBeVisible();

  const odd = await opened(browser, 'odd.fjellheim', '/advances', number);
  await press(odd, 'Record the payout…');
  await type(odd, 'How the bank names it', 'SEPA 44');
  await odd.keyboard.press('Enter');
  await expect(odd.getByText(`${number} is paid out and posted`)).toBeVisible();
  await expect(odd.getByRole('region', { name: 'Paid out and given back' })).toContainText('SEPA 44');

  // the next claim is set against it without being told; handing in, clearing and posting are stories of their own
  const claims = clientOf(ines);
  const coding = { costCentre: '430', fund: '10' };
  const claim = (await claims.post('/drafts', { purpose: 'Ferrymen', coding })).body.number;
  const spent = { date: addDays(todayHere(), -1), amount: { amount: '120.00', currency: 'EUR' }, category: 'supplies' };
  await claims.post(`/drafts/${claim}/lines`, {
    revision: 1,
    lines: [{ ...spent, merchant: 'Ferrymen of Crookhaven', coding }],
  });
  await ines.goto(`/claims/${claim}`);
  const beside = ines.getByRole('region', { name: 'Advances' });
  await expect(beside).toContainText('this claim takes120.00');
  await type(ines, `At most of ${number}`, '100');
  await ines.keyboard.press('Tab');
  await expect(beside).toContainText('this claim takes100.00');
  await type(ines, `At most of ${number}`, ' ');
  await ines.keyboard.press('Tab');
  await expect(beside).toContainText('this claim takes120.00');
  await handIn(claims, claim);
  const { revision } = (await viewOf(clientOf(siobhan), claim)).claim;
  await clientOf(siobhan).post(`/claims/${claim}/approve`, { revision });
  expect((await clear(clientOf(maeve), claim)).body.code).toBeUndefined();
  expect((await post(clientOf(odd), claim, { date: todayHere() })).body.code).toBeUndefined();

  await odd.reload();
  const money = odd.getByLabel('Where the money is');
  await expect(money).toContainText('Still to account for80.00');
  await press(odd, 'Record money given back…');
  await type(odd, 'How much, in EUR', '80.01');
  await odd.keyboard.press('Enter');
  await expect(odd.getByText(/Of this advance 80.00 EUR is open/)).toBeVisible();
  await type(odd, 'How much, in EUR', '80');
  await odd.keyboard.press('Enter');
  await expect(odd.getByText('It is accounted for, and nothing of it is open', { exact: false })).toBeVisible();
  await expect(money).toContainText('Still to account for0.00');

  await odd.goto('/advances/register');
  await expect(odd.getByRole('table', { name: 'By entity and age' })).toContainText('agree');
  await expect(odd.getByText('differ')).toHaveCount(0);
  await expect(odd.getByRole('table', { name: 'One by one' })).not.toContainText(number);
});

test('somebody with an overdue advance asks for another one with a reason', async ({ browser }) => {
  const wanjiru = await pageOf(browser, 'wanjiru.mbaya');
  await wanjiru.goto('/advances');
  await wanjiru.getByRole('button', { name: 'New advance' }).click();
  await wanjiru.getByLabel('What the money is for').fill('Fuel');
  await wanjiru.getByLabel('How much').fill('lots');
  await wanjiru.keyboard.press('Enter');
  await expect(wanjiru.getByRole('alert')).toHaveText(/Type an amount/);
  await wanjiru.getByLabel('How much').fill('9000 kes');
  await wanjiru.keyboard.press('Enter');
  const ask = wanjiru.getByRole('button', { name: /Ask for it/ });
  await expect(wanjiru.getByText('Advance A-031 was to be accounted for by', { exact: false })).toBeVisible();
  await expect(ask).toBeDisabled();
  await wanjiru.getByLabel('Why an exception is wanted').fill('The boat leaves tonight');
  await wanjiru.keyboard.press('Tab');
  await expect(ask).toBeEnabled();
  await ask.click();
  await expect(wanjiru.getByText(/It is with Siobhán O’Dowd/)).toBeVisible();
  await wanjiru.getByRole('button', { name: 'Take it back' }).click();
  await wanjiru.getByRole('button', { name: 'Remove the draft' }).click();
  await expect(wanjiru.getByText('It was withdrawn', { exact: false })).toBeVisible();
});
