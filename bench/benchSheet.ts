import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import config from '../playwright.config.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import { viewOf } from '../test/fixtures/acts.ts';
import { journeyClaim } from '../test/fixtures/cleanClaims.ts';
import { startApi, type TestApi } from '../test/fixtures/startApi.ts';
import { todayHere } from '../web/parts/today.ts';
import { makeTemplate } from './makeTemplate.ts';
import type { Row } from './measure.ts';

const LONG = [300, 1000];
/** Enough that a twentieth of them is more than the first few, when nothing is warm. */
const ROUNDS = 200;
const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Long claims on the Sheet in the real browser: each time beside an animation frame of the same page. */
export async function* benchSheet(): AsyncGenerator<Row> {
  makeTemplate();
  const api = await startApi('bench_sheet', { webFolder: join(ROOT, 'build', 'web') });
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    for (const lines of LONG) {
      const number = await longClaim(api, lines);
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      // what runs in the page was compiled with names kept, by a helper that is not there
      await page.addInitScript('globalThis.__name = (of) => of');
      await signIn(page, api.url);
      yield* rowsOf(page, lines, number);
      await page.close();
    }
  } finally {
    await browser.close();
    await api.close();
  }
}

const HIGHER = ['odd.fjellheim', 'leilani.kahue', 'noor.aldosari', 'maeve.tarrant'];

/** A claim in review with so many journeys; the more it comes to, the more people have to approve. */
async function longClaim(api: TestApi, lines: number): Promise<string> {
  const [claimant, approver] = [await api.as('tomas.brandao'), await api.as('siobhan.odowd')];
  const days = Array.from({ length: lines }, (_, i) => addDays(todayHere(), -80 + (i % 75)));
  const number = await journeyClaim({ claimant, approver }, days, `Long ${lines}`);
  const maeve = await api.as('maeve.tarrant');
  for (const mail of HIGHER) {
    const { claim } = await viewOf(maeve, number);
    if (claim.state === 'in review') return number;
    await (await api.as(mail)).post(`/claims/${number}/approve`, { revision: claim.revision });
  }
  const { claim } = await viewOf(maeve, number);
  if (claim.state !== 'in review') throw new Error(`it waits for ${claim.deciders.join(', ')}`);
  return number;
}

async function signIn(page: Page, url: string): Promise<void> {
  const data = { email: 'maeve.tarrant@saltmarsh.example', password: 'saltmarsh' };
  await page.request.post(`${url}/api/session`, { data });
  await page.goto(`${url}/desk`);
  await page.getByRole('list', { name: 'Claims' }).waitFor();
}

async function* rowsOf(page: Page, lines: number, number: string): AsyncGenerator<Row> {
  const frame = middle(await repeated(page, 'frame'));
  const opened = Date.now();
  await page.goto(new URL(`/desk/${number}`, page.url()).href);
  await page.getByLabel('Settlement').waitFor();
  const opening = Date.now() - opened;
  await page.getByRole('button', { name: /tied throughout/ }).click();
  const arrows = await repeated(page, 'arrow');
  await page.keyboard.press('s');
  await page.getByLabel('Value of share 1').waitFor();
  const keys = await repeated(page, 'key');
  const row = (what: string, ms: number, aim: number | null): Row => ({
    what: `${what}, ${lines} lines`,
    baseline: 'an animation frame',
    ratio: ms / frame,
    aim: lines === LONG[0] ? aim : null,
  });
  yield row('opening a Sheet', opening, null);
  yield row('an arrow in the matrix until it is drawn, p95', late(arrows), 3);
  yield row('a key in the split bench until its figures change, p95', late(keys), 2);
}

const sorted = (times: readonly number[]): number[] => [...times].sort((a, b) => a - b);
const middle = (times: readonly number[]): number => sorted(times)[Math.floor(times.length / 2)]!;
const late = (times: readonly number[]): number => sorted(times)[Math.floor(times.length * 0.95)]!;

type Act = 'frame' | 'arrow' | 'key';
async function repeated(page: Page, act: Act): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) times.push(await page.evaluate(timed, { act, round: i }));
  return times;
}

/** In the page: how long one act takes, in milliseconds. */
function timed({ act, round }: { act: Act; round: number }): Promise<number> {
  const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
  const began = performance.now();
  if (act === 'frame') return frame().then(async (first) => (await frame()) - first);
  if (act === 'arrow') {
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
    return frame()
      .then(frame)
      .then(() => performance.now() - began);
  }
  const input = document.querySelector<HTMLInputElement>('[aria-label="Value of share 1"]')!;
  return new Promise((resolve) => {
    const seen = new MutationObserver(() => {
      seen.disconnect();
      resolve(performance.now() - began);
    });
    seen.observe(input.closest('table')!, { subtree: true, characterData: true, childList: true });
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, String(20 + round / 4));
    input.dispatchEvent(new Event('input', { bubbles: true }));
  });
}
