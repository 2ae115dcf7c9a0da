import { expect, test, type Browser, type Page } from '@playwright/test';
import { addDays } from '../../core/numbers/isoDate.ts';
import { todayHere } from '../../web/parts/today.ts';
import { handIn, viewOf } from '../fixtures/acts.ts';
import { cleanClaims, journeyClaim, type Makers } from '../fixtures/cleanClaims.ts';
import { clientOf } from './client.ts';
import { pageOf, tabTo } from './people.ts';

/** The reviewer's hour: what is off is found, asked, corrected and cleared in a few keys. */

/** Counts the keys somebody presses; words they type are not counted. */
function counting(page: Page) {
  let keys = 0;
  return {
    press: async (key: string) => {
      keys += 1;
      await page.keyboard.press(key);
    },
    count: () => keys,
  };
}

async function makersOf(browser: Browser): Promise<Makers> {
  const [tomas, siobhan] = [await pageOf(browser, 'tomas.brandao'), await pageOf(browser, 'siobhan.odowd')];
  return { claimant: clientOf(tomas), approver: clientOf(siobhan) };
}
/** The Desk with one claim listed and in focus. */
async function deskWith(page: Page, number: string): Promise<void> {
  await page.goto(`/desk?q=${number}`);
  await page.locator(`a[href="/desk/${number}"]`).focus();
}
const evidence = (page: Page) => page.getByRole('complementary', { name: 'Evidence' });
const days = (count: number, from: string) => Array.from({ length: count }, (_, i) => addDays(from, i));
const recent = addDays(todayHere(), -40);

test('a clean claim of 20 lines is cleared with two keys, one with three findings with fewer than twelve', async ({
  browser,
}) => {
  const makers = await makersOf(browser);
  const clean = await journeyClaim(makers, days(20, recent), 'Twenty sluices');
  const old = addDays(todayHere(), -140);
  const three = await journeyClaim(makers, [...days(3, old), recent], 'Sluices of the summer');

  const maeve = await pageOf(browser, 'maeve.tarrant');
  await deskWith(maeve, clean);
  const first = counting(maeve);
  await first.press('Enter');
  await expect(maeve.getByText('19 lines are tied throughout')).toBeVisible();
  await first.press('Control+Enter');
  await expect(maeve.getByText(`${clean} is cleared`)).toBeVisible();
  expect(first.count()).toBe(2);

  await deskWith(maeve, three);
  const second = counting(maeve);
  await second.press('Enter');
  for (const line of ['1', '2', '3']) {
    await expect(evidence(maeve).getByRole('heading', { name: `Line ${line}, limit` })).toBeVisible();
    await second.press('w');
    await maeve.keyboard.type('The boat was being repaired');
    await second.press('Enter');
    const waived = evidence(maeve).getByText('Waived by Maeve Tarrant');
    // the claim that was cleared counts kilometres before this one's: what was seen may be refused once, and stays typed
    await waived.waitFor({ timeout: 5000 }).catch(() => second.press('Enter'));
    await expect(waived).toBeVisible();
    if (line !== '3') await second.press('n');
  }
  await second.press('Control+Enter');
  await expect(maeve.getByText(`${three} is cleared`)).toBeVisible();
  expect(second.count()).toBeLessThan(12);
});

test('the same difference at several lines is accepted once, and taken back with one key', async ({ browser }) => {
  const number = await journeyClaim(await makersOf(browser), days(3, addDays(todayHere(), -150)), 'Sluices of spring');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  await expect(evidence(maeve).getByRole('heading', { name: 'Line 1, limit' })).toBeVisible();
  await maeve.keyboard.press('w');
  await maeve.keyboard.type('The boat was being repaired');
  await tabTo(maeve, evidence(maeve).getByLabel('the same at lines 2'));
  await maeve.keyboard.press('Space');
  await tabTo(maeve, evidence(maeve).getByRole('button', { name: 'Waive', exact: true }));
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('Line 1 limit and 2 more: waived')).toBeVisible();
  const marks = async () => (await viewOf(clientOf(maeve), number)).marks.map((m: any) => [m.line, m.mark]);
  expect(await marks()).toEqual(['1', '2', '3'].map((line) => [line, 'waived']));
  await maeve.keyboard.press('u');
  await expect(maeve.getByText('Undone: line 1 limit')).toBeVisible();
  expect(await marks()).toEqual([]);
});

test('a clearing that is refused leads to what stands against it', async ({ browser }) => {
  const number = await journeyClaim(await makersOf(browser), [recent, addDays(todayHere(), -130)], 'Two sluices');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  const heading = evidence(maeve).getByRole('heading', { name: 'Line 2, limit' });
  await expect(heading).toBeVisible();
  await maeve.keyboard.press('ArrowRight');
  await expect(heading).toBeHidden();
  await maeve.keyboard.press('Control+Enter');
  await expect(maeve.getByText('1 comparison is not tied')).toBeVisible();
  await expect(heading).toBeVisible();
});

test('a question is asked, answered with a file and cleared while the claim stays in review', async ({ browser }) => {
  const number = await journeyClaim(await makersOf(browser), [recent], 'A sluice to ask about');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  await expect(evidence(maeve).getByRole('heading', { name: 'Line 1, limit' })).toBeVisible();
  await maeve.keyboard.press('a');
  await maeve.keyboard.type('Why by car?');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('1 question is pinned and not sent')).toBeVisible();
  await maeve.keyboard.press('a');
  await maeve.keyboard.type('Never mind this one');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('2 questions are pinned and not sent')).toBeVisible();
  await maeve.keyboard.press('u');
  await expect(maeve.getByText('1 question is pinned and not sent')).toBeVisible();
  await maeve.keyboard.press('e');
  await expect(maeve.getByText('Waits for Tomás Brandão to answer 1 question, at line 1.')).toBeVisible();
  await maeve.keyboard.press('Control+Enter');
  await expect(maeve.getByText('The question at line 1 is not answered yet')).toBeVisible();

  const tomas = await pageOf(browser, 'tomas.brandao');
  await tomas.goto(`/claims/${number}`);
  const questions = tomas.getByRole('region', { name: 'Questions' });
  await expect(questions).toContainText('Why by car?');
  await expect(questions).not.toContainText('Never mind');
  const added = tomas.waitForResponse((r) => r.url().includes('/files'));
  await questions
    .getByLabel('Add a file to the answer')
    .last()
    .setInputFiles({
      name: 'timetable.png',
      mimeType: 'image/png',
      buffer: await tomas.screenshot({ clip: { x: 0, y: 0, width: 60, height: 60 } }),
    });
  expect((await added).status()).toBe(201);
  await expect(questions.getByRole('button', { name: 'timetable.png' })).toBeVisible();
  await tabTo(tomas, questions.getByLabel('Answer to: line 1, Why by car?'));
  await tomas.keyboard.type('There is no bus on Sundays.');
  await tabTo(tomas, questions.getByRole('button', { name: 'Answer', exact: true }));
  await tomas.keyboard.press('Enter');
  await expect(questions).toContainText('“There is no bus on Sundays.”');

  await maeve.goto(`/desk?is=answered&q=${number}`);
  await expect(maeve.locator(`a[href="/desk/${number}"]`)).toContainText('answered');
  await maeve.locator(`a[href="/desk/${number}"]`).focus();
  await maeve.keyboard.press('Enter');
  const thread = maeve.getByRole('list', { name: 'Questions about line 1' });
  await expect(thread).toContainText('There is no bus on Sundays.');
  await expect(thread.getByRole('button', { name: 'timetable.png' })).toBeVisible();
  await maeve.keyboard.press('Control+Enter');
  await expect(maeve.getByText(`${number} is cleared`)).toBeVisible();
});

test('lines like one another are corrected at once, with the effect seen before, and undone with one key', async ({
  browser,
}) => {
  const number = await journeyClaim(await makersOf(browser), days(4, recent), 'Four sluices to recode');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  await maeve.getByText('3 lines are tied throughout').waitFor();
  await maeve.keyboard.press('j');
  const journal = maeve.getByRole('group', { name: 'Journal rows' });
  await expect(journal).toBeVisible();
  await maeve.keyboard.press('c');
  const bench = maeve.getByRole('form', { name: 'coding of line 1' });
  await tabTo(maeve, bench.getByLabel('Cost centre of line 1'));
  await maeve.keyboard.type('420');
  await maeve.keyboard.press('Enter');
  await tabTo(maeve, bench.getByLabel('the 3 other lines like this one'));
  await maeve.keyboard.press('Space');
  await expect(journal.getByRole('row', { name: /420 · 10/ })).toHaveCount(4);
  await expect(journal.getByRole('row', { name: /410 · 10/ })).toHaveCount(0);
  await tabTo(maeve, bench.getByRole('button', { name: 'Save' }));
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('Saved: coding of 4 lines')).toBeVisible();
  await maeve.keyboard.press('u');
  await expect(maeve.getByText('Undone: coding of 4 lines')).toBeVisible();
  await expect(journal.getByRole('row', { name: /410 · 10/ })).toHaveCount(4);
});

test('what is cut of a card charge becomes private, and of own money is not paid; both are undone', async ({
  browser,
}) => {
  const maeve = await pageOf(browser, 'maeve.tarrant');
  const acts = clientOf(maeve);
  const { claims } = (await acts.get('/claims')).body;
  for (const [paidBy, words] of [
    ['card', 'What is not allowed becomes private'],
    ['own', 'What is not allowed is not paid'],
  ]) {
    let found: { number: string; line: string } | undefined;
    for (const { number, own } of claims) {
      if (own || found) continue;
      const { document } = await viewOf(acts, number);
      const line = document.claim.lines.find(
        (l: any) => l.paidBy === paidBy && !l.personal && !l.items?.length && Number(l.amount) > 50,
      );
      if (line) found = { number, line: line.id };
    }
    const { number, line } = found!;
    await maeve.goto(`/desk/${number}`);
    const settlement = maeve.getByLabel('Settlement');
    await settlement.waitFor();
    const before = await settlement.innerText();
    const fold = maeve.getByRole('button', { name: /tied throughout/ });
    if (await fold.count()) await fold.click();
    await maeve.getByRole('button', { name: `line ${line} limit` }).click();
    await maeve.keyboard.press('x');
    const bench = maeve.getByRole('form', { name: `amount allowed of line ${line}` });
    await expect(bench).toContainText(words!);
    await maeve.keyboard.type('20');
    await expect(bench.getByRole('alert')).toHaveText('Say why less is allowed.');
    await maeve.keyboard.press('Tab');
    await maeve.keyboard.type('Only a part was for the work');
    await expect(settlement).not.toHaveText(before);
    await maeve.keyboard.press('Enter');
    await expect(maeve.getByText(`Saved: amount allowed of line ${line}`)).toBeVisible();
    await expect(evidence(maeve).getByText('Only a part was for the work').first()).toBeVisible();
    await maeve.keyboard.press('u');
    await expect(maeve.getByText(`Undone: amount allowed of line ${line}`)).toBeVisible();
    await expect(settlement).toHaveText(before);
  }
});

test('claims with nothing off are cleared together, but for those drawn for a full look', async ({ browser }) => {
  const numbers = await cleanClaims(await makersOf(browser), 4, { daysAgo: 20 });
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto('/desk?is=clean&q=round of the sluices');
  await expect(maeve.getByRole('table', { name: 'Claims' }).getByRole('link')).toHaveCount(numbers.length);
  await tabTo(maeve, maeve.getByLabel(`All ${numbers.length} listed with nothing off`));
  await maeve.keyboard.press('Space');
  await maeve.keyboard.press('g');
  await expect(maeve.getByRole('status').filter({ hasText: '3 cleared, 1 drawn, 0 left out' })).toBeVisible();
  const drawn = maeve.getByRole('region', { name: 'Drawn for a full look' }).getByRole('link');
  const number = (await drawn.innerText()).trim();
  expect(numbers).toContain(number);
  await tabTo(maeve, drawn);
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByRole('heading', { name: new RegExp(number) })).toBeVisible();
  await maeve.keyboard.press('Control+Enter');
  await expect(maeve.getByText(`${number} is cleared`)).toBeVisible();
});

test('a claim that comes back says what changed since it was looked at', async ({ browser }) => {
  const makers = await makersOf(browser);
  const number = await journeyClaim(makers, days(2, recent), 'Sluices with another way');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  await expect(maeve.getByText('1 line is tied throughout')).toBeVisible();
  await maeve.keyboard.press('r');
  await maeve.keyboard.type('Which way did you take?');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('The claim is returned')).toBeVisible();

  const { claim } = await viewOf(makers.claimant, number);
  const journey = { vehicle: 'car', distance: '99', unit: 'km', passengers: null };
  const set = { journey, description: 'By the coast road' };
  const edited = await makers.claimant.put(`/drafts/${number}/lines/2`, { revision: claim.revision, set });
  expect(edited.status).toBe(200);
  await handIn(makers.claimant, number, 'resubmit');
  const asked = await viewOf(makers.approver, number);
  await makers.approver.post(`/claims/${number}/approve`, { revision: asked.claim.revision });

  await maeve.goto(`/desk/${number}`);
  await expect(maeve.getByText('It came back as version 2.')).toBeVisible();
  await maeve.keyboard.press('b');
  const changes = maeve.getByRole('region', { name: 'What changed' });
  await expect(changes.getByLabel('Since')).toContainText('version 1, which you looked at');
  await expect(changes.getByRole('row', { name: /description/ })).toContainText('By the coast road');
  await expect(changes.getByRole('listitem')).toHaveCount(1);
  await maeve.keyboard.press('Escape');
  await expect(changes).toBeHidden();
});

test('two reviewers see each other on a claim, and the next one is given to one of them alone', async ({ browser }) => {
  const numbers = await cleanClaims(await makersOf(browser), 3, { daysAgo: 60, purpose: 'Round of the weirs' });
  const [maeve, ines] = [await pageOf(browser, 'maeve.tarrant'), await pageOf(browser, 'ines.quadros')];
  for (const page of [maeve, ines]) {
    await page.goto('/desk?is=clean&q=round of the weirs');
    await expect(page.getByRole('table', { name: 'Claims' }).getByRole('link')).toHaveCount(numbers.length);
    await page.locator(`a[href="/desk/${numbers[0]}"]`).focus();
    await page.keyboard.press('Enter');
  }
  await expect(ines.getByText('Maeve Tarrant has this claim open too.')).toBeVisible();
  await Promise.all([maeve.keyboard.press('.'), ines.keyboard.press('.')]);
  await expect(maeve).not.toHaveURL(new RegExp(numbers[0]!));
  await expect(ines).not.toHaveURL(new RegExp(numbers[0]!));
  expect(maeve.url()).not.toBe(ines.url());
});
