import { expect, test, type Page } from '@playwright/test';
import { randomFrom, type Random } from '../../demo/random.ts';
import { clientOf } from './client.ts';
import { pageOf } from './people.ts';

/*
 * What the page says is saved is on the server, once; what is not, the page says. Two tabs of one person, each on a server
 * process of its own, do random things by a seed to one claim, while requests are cut, delayed, answered half or not at all,
 * the session ends and pages are loaded again. KEPT_RUNS says how many seeds are tried, KEPT_ACTS how many acts each has,
 * KEPT_SEED where they begin.
 */
const RUNS = Number(process.env.KEPT_RUNS ?? 3);
const ACTS = Number(process.env.KEPT_ACTS ?? 60);
const FIRST = Number(process.env.KEPT_SEED ?? 1);
const SECOND_URL = process.env.EBBET_SECOND_URL;

type Fault = 'none' | 'cut' | 'lost' | 'slow' | 'broken' | 'busy';
const FAULTS: readonly Fault[] = ['cut', 'lost', 'slow', 'broken', 'busy'];

/** One thing that was typed: into which field of which line, or as a new line, and in which tab. */
interface Typed {
  tab: number;
  field: string;
  value: string;
}

for (let seed = FIRST; seed < FIRST + RUNS; seed += 1)
  test(`what is typed is on the server once, or the page says that it is not (seed ${seed})`, async ({ browser }) => {
    const random = randomFrom(seed);
    const first = await pageOf(browser, 'tomas.brandao');
    const tabs = [first, await first.context().newPage()];
    const tomas = clientOf(await pageOf(browser, 'tomas.brandao'));
    const { number } = (
      await tomas.post('/drafts', { purpose: `Seed ${seed}`, coding: { costCentre: '430', fund: '10' } })
    ).body;
    const line = (i: number) => ({
      date: '2026-11-02',
      amount: { amount: `${i}.00`, currency: 'EUR' },
      category: 'meal',
      merchant: `M${i}`,
    });
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [1, 2, 3, 4].map(line) });
    const log: string[] = [];
    const heard: string[][] = tabs.map(() => []);
    let faulty = true;
    for (const [i, tab] of tabs.entries()) {
      tab.on('dialog', (dialog) => void dialog.accept());
      // what was said before a reload was said
      await tab.exposeFunction('noteSaid', (text: string) => void heard[i]!.push(text));
      await tab.addInitScript(listenToMessages);
      await tab.route('**/api/drafts/**', async (route) => {
        const request = route.request();
        const note = (what: string) =>
          log.push(
            `${Date.now() % 1e6} tab ${i} ${what} ${request.method()} ${new URL(request.url()).pathname} ${request.postData()?.slice(0, 200)} ${request.headers()['idempotency-key']?.slice(0, 6)}`,
          );
        const fault: Fault = faulty && random.next() < 0.25 ? random.pick(FAULTS) : 'none';
        note(fault);
        try {
          if (fault === 'cut') return await route.abort();
          if (fault === 'busy')
            return await route.fulfill({
              status: 503,
              body: '{"code":"away","says":"Away."}',
              contentType: 'application/json',
            });
          if (fault === 'slow') await new Promise((wake) => setTimeout(wake, 50 + random.whole(0, 700 - 1)));
          if (fault === 'lost' || fault === 'broken') {
            const answer = await route.fetch();
            note(`came through ${answer.status()}`);
            return await (fault === 'lost' ? route.abort() : route.fulfill({ response: answer, body: '{"audience":' }));
          }
          if (process.env.KEPT_LOG) {
            const response = await route.fetch();
            note(`answered ${response.status()} ${(await response.text()).slice(0, 60)}`);
            return await route.fulfill({ response });
          }
          await route.continue();
        } catch {
          // the page went away under the request
        }
      });
      await open(tab, number, i);
    }

    const typed: Typed[] = [];
    const removed = new Set<string>();
    for (let act = 0; act < ACTS; act += 1)
      await ACTS_OF[random.pick(WEIGHTED)]({ tabs, random, typed, removed, number, value: `v${seed}x${act}` });

    faulty = false;
    for (const [i, tab] of tabs.entries()) await settle(tab, number, i);
    const { document, history } = (await tomas.get(`/claims/${number}`)).body;
    const lines = document.lines as { id: string; merchant: string | null; description: string | null }[];
    const said = heard.map((all) => all.join('\n'));

    const names = lines.map((l) => l.merchant).filter((m) => m?.startsWith('n'));
    expect(new Set(names).size, `each new line once: ${names.join(' ')}`).toBe(names.length);
    const isTold = async ({ tab, value }: Typed) => said[tab]!.includes(value) || (await isHeld(tabs[tab]!, value));
    // a new line is there, or its tab still has it; once more than one was taken off it may be that one
    for (const one of typed.filter((t) => t.field === 'new'))
      expect(names.includes(one.value) || (await isTold(one)), `the new line ${one.value}`).toBe(true);
    // what was typed last in a field stands there, unless its line is gone or its tab tells otherwise
    for (const field of new Set(typed.map((t) => t.field))) {
      const [kind, id] = field.split(' ');
      const now = lines.find((l) => l.id === id);
      const last = typed.findLast((t) => t.field === field)!;
      if (kind === 'new' || (!now && removed.has(id!))) continue;
      const value = kind === 'merchant' ? now?.merchant : now?.description;
      const how = () =>
        [
          `${field}: ${value}, typed ${last.value}`,
          ...typed.filter((t) => t.field === field).map((t) => `tab ${t.tab} typed ${t.value}`),
          ...history.flatMap((e: any) => (e.facts?.line === id ? [JSON.stringify(e)] : [])),
          ...log.filter((entry) => entry.includes(`/lines/${id} `)),
        ].join('\n');
      expect(value === last.value || (await isTold(last)), how()).toBe(true);
    }
    for (const tab of tabs)
      await tab
        .context()
        .close()
        .catch(() => undefined);
  });

interface Doing {
  tabs: readonly Page[];
  random: Random;
  typed: Typed[];
  removed: Set<string>;
  number: string;
  value: string;
}
type Act = (doing: Doing) => Promise<void>;

const fieldAct =
  (kind: 'merchant' | 'what', label: (line: string) => string): Act =>
  async ({ tabs, random, typed, value }) => {
    const tab = random.whole(0, tabs.length - 1);
    const line = String(1 + random.whole(0, 4 - 1));
    const cell = tabs[tab]!.getByLabel(label(line), { exact: true });
    if (!(await cell.isVisible().catch(() => false))) return;
    const filled = await cell.fill(value, { timeout: 3000 }).then(
      () => true,
      () => false,
    );
    if (!filled) return;
    typed.push({ tab, field: `${kind} ${line}`, value });
    await cell.press(random.next() < 0.5 ? 'Enter' : 'Tab', { timeout: 3000 }).catch(() => undefined);
  };

/** What somebody does, by name and how often. */
const ACTS_OF = {
  merchant: fieldAct('merchant', (line) => `Merchant of line ${line}`),
  what: fieldAct('what', (line) => `What line ${line} was for`),
  async add({ tabs, random, typed, value }: Doing) {
    const tab = random.whole(0, tabs.length - 1);
    const page = tabs[tab]!;
    const name = `n${value}`;
    const options = { timeout: 3000 };
    try {
      if ((await page.getByLabel('Merchant of a new line').inputValue(options)) !== '') return;
      await page.getByLabel('Date of a new line').fill('2026-11-03', options);
      await page.getByLabel('Merchant of a new line').fill(name, options);
      const category = page.getByRole('combobox', { name: 'Category of a new line' });
      if (!/meal/i.test((await category.textContent(options)) ?? '')) {
        await category.press('m', options);
        await page.keyboard.type('eal');
        await page.getByRole('option', { name: /^meals?\b/i, selected: true }).waitFor(options);
        await page.keyboard.press('Enter');
      }
      await page.getByLabel('Amount of a new line').fill('5', options);
      typed.push({ tab, field: 'new', value: name });
      await page.getByLabel('Amount of a new line').press('Enter', options);
    } catch {
      // the page was loaded again, or something lies over it: what was typed of it stands in the row
    }
  },
  async remove({ tabs, random, removed }: Doing) {
    const page = tabs[random.whole(0, tabs.length - 1)]!;
    const line = String(3 + random.whole(0, 2 - 1));
    const more = page.getByRole('button', { name: `More of line ${line}`, exact: true });
    if (!(await more.isVisible().catch(() => false))) return;
    await more.click({ timeout: 2000 }).catch(() => undefined);
    const off = page.getByRole('button', { name: 'Take the line off' });
    if (!(await off.isVisible().catch(() => false))) return;
    removed.add(line);
    await off.click({ timeout: 2000 }).catch(() => undefined);
  },
  async reload({ tabs, random, number }: Doing) {
    const tab = random.whole(0, tabs.length - 1);
    await open(tabs[tab]!, number, tab).catch(() => undefined);
  },
  async endSession({ tabs }: Doing) {
    await tabs[0]!.request
      .delete('/api/session', { headers: { 'idempotency-key': crypto.randomUUID() } })
      .catch(() => undefined);
  },
  async signIn({ tabs }: Doing) {
    for (const tab of tabs) await signInAgain(tab);
  },
  async wait({ tabs, random }: Doing) {
    await tabs[0]!.waitForTimeout(random.whole(0, 600 - 1));
  },
};
const WEIGHTED: readonly (keyof typeof ACTS_OF)[] = [
  ...Array.from({ length: 7 }, () => 'merchant' as const),
  ...Array.from({ length: 5 }, () => 'what' as const),
  ...Array.from({ length: 5 }, () => 'add' as const),
  ...(['remove', 'reload', 'endSession', 'signIn', 'signIn', 'wait', 'wait'] as const),
];

const urlOf = (number: string, tab: number): string => `${tab === 1 && SECOND_URL ? SECOND_URL : ''}/claims/${number}`;

async function open(page: Page, number: string, tab: number): Promise<void> {
  await page.goto(urlOf(number, tab));
  const entry = page.getByLabel('E-mail', { exact: true });
  await page.getByLabel('What the claim is for').or(entry).first().waitFor();
  if (await page.getByLabel('What the claim is for').isVisible()) return;
  await page.request.post('/api/session', {
    data: { email: 'tomas.brandao@saltmarsh.example', password: 'saltmarsh' },
  });
  await page.goto(urlOf(number, tab));
  await page.getByLabel('What the claim is for').waitFor();
}

async function signInAgain(page: Page): Promise<void> {
  const bar = page.getByRole('alertdialog', { name: 'Session ended' });
  if (!(await bar.isVisible().catch(() => false))) return;
  await bar
    .getByLabel('Password')
    .fill('saltmarsh')
    .catch(() => undefined);
  await bar
    .getByRole('button', { name: 'Sign in' })
    .click({ timeout: 3000 })
    .catch(() => undefined);
  await bar.waitFor({ state: 'hidden', timeout: 5000 }).catch(() => undefined);
}

/** Signs in where that is asked, and waits until the page says that everything is saved, or what of it is not. */
async function settle(page: Page, number: string, tab: number): Promise<void> {
  if (!page.url().includes(number)) await open(page, number, tab);
  await expect(async () => {
    await signInAgain(page);
    // what was just typed is on its way before the page says so
    await page.waitForTimeout(400);
    // a page that was loaded while nobody was signed in
    if (await page.getByLabel('E-mail', { exact: true }).isVisible()) await open(page, number, tab);
    const says = (await page.getByRole('status').allTextContents()).join(' ');
    expect(says).toMatch(/All is saved|Not saved yet/);
  }).toPass({ timeout: 60_000 });
}

/** Keeps every message a page shows, so that none that went by is missed. */
function listenToMessages(): void {
  let last = '';
  const { noteSaid } = window as never as { noteSaid: (text: string) => void };
  const note = () => {
    for (const at of document.querySelectorAll('[role=status], [role=alert]')) {
      const text = at.textContent ?? '';
      if (!text || text === last) continue;
      last = text;
      noteSaid(text);
    }
  };
  document.addEventListener('DOMContentLoaded', () =>
    new MutationObserver(note).observe(document.body, { childList: true, subtree: true, characterData: true }),
  );
}
/** Whether a field of the page still holds it, and the page says that something is not saved. */
const isHeld = async (page: Page, value: string): Promise<boolean> =>
  (await page.getByText('Not saved yet').isVisible())
  && page.evaluate((wanted) => [...document.querySelectorAll('input')].some((input) => input.value === wanted), value);
