import { expect, test } from '@playwright/test';
import { addDays } from '../../core/numbers/isoDate.ts';
import { todayHere } from '../../web/parts/today.ts';
import { handIn } from '../fixtures/acts.ts';
import { clientOf } from './client.ts';
import { goToRow, pageOf, tabTo } from './people.ts';

test('what happens is heard of at once, in every tab, and is read with the keyboard', async ({ browser }) => {
  const siobhan = await pageOf(browser, 'siobhan.odowd');
  await siobhan.goto('/messages');
  await siobhan.getByRole('heading', { name: 'Messages' }).waitFor();
  await siobhan.goto('/approvals');
  const bell = siobhan.getByRole('link', { name: 'Messages', exact: true });
  await expect(bell).toBeVisible();
  const other = await siobhan.context().newPage();
  await other.goto('/plans');
  await expect(other.getByRole('link', { name: 'Messages', exact: true })).toBeVisible();

  const tomas = clientOf(await pageOf(browser, 'tomas.brandao'));
  const coding = { costCentre: '430', fund: '10' };
  const { number } = (await tomas.post('/drafts', { purpose: 'Buoys for the bay', coding })).body;
  const line = { date: addDays(todayHere(), -1), amount: { amount: '66.60', currency: 'EUR' }, category: 'supplies' };
  await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [{ ...line, merchant: 'Buoy yard', coding }] });
  await handIn(tomas, number);

  // neither page was loaded again
  await expect(siobhan.getByRole('link', { name: 'Messages, 1 new' })).toBeVisible();
  await expect(siobhan.getByRole('link', { name: new RegExp(number) })).toBeVisible();
  await expect(other.getByRole('link', { name: 'Messages, 1 new' })).toBeVisible();
  // the tab that held the stream goes, the other one hears on
  await siobhan.close();
  await tabTo(other, other.getByRole('link', { name: 'Messages, 1 new' }));
  await other.keyboard.press('Enter');
  const row = other.getByRole('link', { name: new RegExp(`${number} waits for your decision`) });
  await expect(row).toContainText('66.60 EUR');
  await goToRow(other, row);
  await other.keyboard.press('Enter');
  await other.waitForURL(new RegExp(`/claims/${number}$`));
  await expect(other.getByRole('link', { name: 'Messages', exact: true })).toBeVisible();
  const { claim } = (await tomas.get(`/claims/${number}`)).body;
  await tomas.post(`/claims/${number}/call-back`, { revision: claim.revision });

  await other.goto('/messages');
  await other.getByLabel('By mail').selectOption('daily');
  await expect(other.getByText('You get one mail a day, in the morning')).toBeVisible();
  await other.reload();
  await expect(other.getByLabel('By mail')).toHaveValue('daily');
  await other.getByLabel('By mail').selectOption('at once');
});
