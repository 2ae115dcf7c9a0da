import { expect, test } from '@playwright/test';
import { statementOf, type Book } from '../../standins/bank/book.ts';
import { writeCamt053 } from '../../standins/bank/write.ts';
import { added, drop, zoneOf, type TestFile } from './files.ts';
import { todayHere } from '../../web/parts/today.ts';
import { pageOf } from './people.ts';

/** Purchases of a month far ahead, which nobody else's test looks at. */
const BOOK: Book = {
  cards: [{ id: '4427', currency: 'EUR', owed: 0 }],
  purchases: ['2031-04-05', '2031-04-12', '2031-04-20'].map((day, i) => ({
    reference: `E${i}`,
    card: '4427',
    purchasedOn: day,
    bookedOn: day,
    settled: 1000 + i,
    merchant: 'QUAY STORES',
    country: 'IE',
    categoryCode: '5411',
  })),
};

test('a purchasing card’s month is accounted for and closed', async ({ browser }) => {
  const page = await pageOf(browser, 'leilani.kahue');
  await page.goto('/gather/cards');
  const months = page.getByRole('link', { name: /^\d{4}-\d{2}/ });
  await months.first().waitFor();
  // the newest month that is over: the one that runs cannot be closed
  const name = (await months.allInnerTexts()).map((text) => text.slice(0, 7)).find((m) => m < todayHere().slice(0, 7))!;
  await page.getByRole('link', { name: new RegExp(`^${name}`) }).click();
  const proof = page.getByRole('region', { name: 'Proof' });
  await expect(proof.getByText('Finance closes the month')).toBeVisible();
  await expect(proof).toContainText('are not');

  await page.getByRole('link', { name: 'Card charges' }).click();
  const first = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('checkbox') })
    .filter({ hasText: name })
    .first();
  await first.getByRole('button', { name: 'Claimed already…' }).click();
  await page.getByLabel('Where it was claimed').fill('Petty cash, week 40');
  await page.getByRole('button', { name: 'Mark as claimed already' }).click();
  await expect(page.getByText('Marked as claimed already')).toBeVisible();

  await page.getByRole('button', { name: 'Choose all' }).click();
  const take = page.getByRole('form', { name: 'Put on a claim' });
  await take.getByRole('combobox', { name: 'Claim', exact: true }).selectOption('');
  await take.getByLabel('What the claim is for').fill('Field station purchases');
  await take.getByRole('button', { name: /Put \d+ on a new claim/ }).click();
  await expect(page.getByLabel('What the claim is for')).toHaveValue('Field station purchases');
  const settlement = page.getByLabel('Settlement');
  await expect(settlement).toContainText(/0\.00/);

  await page.goto('/gather/cards');
  await page.getByRole('link', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('list', { name: 'Charges of the month' })).toContainText(
    'claimed already: Petty cash, week 40',
  );
  await expect(proof.getByText('0 over 0.00 are not')).toBeVisible();
  await expect(proof.getByText('Finance closes the month')).toBeVisible();
  const address = page.url();
  await page.context().close();

  const finance = await pageOf(browser, 'maeve.tarrant');
  await finance.goto(address);
  await finance.getByRole('button', { name: 'Close the month' }).click();
  await expect(finance.getByText('Closed by Maeve Tarrant.')).toBeVisible();
  await finance.context().close();
});

test('a table of charges is imported by its columns, and twice adds nothing', async ({ browser }) => {
  const page = await pageOf(browser, 'odd.fjellheim');
  await page.goto('/gather/statements');
  const table = [
    '\ufeffBuchungstag;Händler;Betrag;Referenz',
    '03.03.2031;"Watt & Meer; ""Husum""";1.234,56;W1',
    '04.03.2031;\u202eDeichbäckerei;-12,30;W2',
    '31.02.2031;Kein Tag;1,00;W3',
    '05.03.2031;Zu groß;1e9;W4',
    '06.03.2031;Breite Ziffern;１２３;W5',
    '',
  ].join('\r\n');
  const file = { name: 'umsatz.csv', type: 'text/csv', bytes: Buffer.from(table) };
  await drop(page, zoneOf(page), [file]);
  const form = page.getByRole('form', { name: 'Columns of the table' });
  const show = form.getByRole('button', { name: 'Show what the rows become' });
  await show.click();
  await expect(form.getByRole('alert')).toContainText('the card');
  await form.getByRole('combobox', { name: 'Card', exact: true }).selectOption('4427');
  for (const [label, column] of [
    ['Booking date', 'Buchungstag'],
    ['Amount', 'Betrag'],
    ['Merchant', 'Händler'],
    ['Bank’s reference', 'Referenz'],
  ] as const)
    await form.getByRole('combobox', { name: label, exact: true }).selectOption({ label: column });
  await form.getByRole('combobox', { name: 'Dates are written' }).selectOption('dmy');
  await form.getByRole('combobox', { name: 'Before the decimals stands' }).selectOption(',');
  await form.getByRole('combobox', { name: 'What was spent is' }).selectOption('positive');
  await show.click();
  const become = form.getByRole('region', { name: 'What the rows become' });
  await expect(become).toContainText('Of 5 rows 2 would be taken, from 2031-03-03 to 2031-03-04');
  await expect(become).toContainText('3 rows would not be taken');
  // Another sign is another answer, so it is rehearsed again before anything is taken.
  await form.getByRole('combobox', { name: 'What was spent is' }).selectOption('negative');
  await expect(become).toHaveCount(0);
  await form.getByRole('combobox', { name: 'What was spent is' }).selectOption('positive');
  await show.click();
  await expect(become).toContainText('spent 1\u2009234.56EUR, came back −12.30EUR');
  await form.getByRole('button', { name: 'Take 2 entries' }).click();
  await expect(page.getByText('Card 4427: of 2 entries 2 new.')).toBeVisible();
  const faults = page.getByRole('list', { name: 'Files being added' }).getByRole('alert');
  for (const line of ['Line 4', 'Line 5', 'Line 6']) await expect(faults).toContainText(line);

  await page.reload();
  await drop(page, zoneOf(page), [file]);
  await expect(form).toContainText(/said on .* for card 4427/);
  await form.getByRole('combobox', { name: 'Card', exact: true }).selectOption('4427');
  await show.click();
  await form.getByRole('button', { name: 'Take 2 entries' }).click();
  await expect(page.getByText(/nothing was added/)).toBeVisible();

  // statements that overlap add what is new; one whose sum is wrong is refused whole, with both figures
  const xml = (name: string, from: string, to: string, more = 0): TestFile => {
    const statement = statementOf(BOOK, '4427', from, to);
    const text = writeCamt053([{ ...statement, owedAfter: statement.owedAfter + more }], `${to}T00:00:00`);
    return { name, type: 'text/xml', bytes: Buffer.from(text) };
  };
  await drop(page, zoneOf(page), [
    xml('april.xml', '2031-04-01', '2031-04-15'),
    xml('overlap.xml', '2031-04-10', '2031-04-30'),
    xml('wrong.xml', '2031-04-01', '2031-04-30', 7),
  ]);
  await expect(added(page, 'wrong.xml').getByRole('alert')).toContainText('Nothing of it was taken');
  await expect(page.getByRole('row').filter({ hasText: 'april.xml' })).toContainText(/2031-04-15\s*2\s*2/);
  await expect(page.getByRole('row').filter({ hasText: 'overlap.xml' })).toContainText(/2031-04-30\s*2\s*1/);
  await expect(page.getByRole('row').filter({ hasText: 'wrong.xml' })).toContainText('refused');

  await drop(page, zoneOf(page), [{ name: 'odd.xml', type: 'text/xml', bytes: Buffer.from('<a/>') }]);
  await expect(added(page, 'odd.xml').getByRole('alert')).toContainText('camt.053');
  await page.getByRole('button', { name: 'Ask now' }).click();
  await expect(page.getByText(/The bank was last asked/)).toBeVisible();
  await page.context().close();
});
