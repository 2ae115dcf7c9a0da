import type { ClaimAnswer } from '../../contract/claims.ts';
import { cookiesOf, startApi, type Client, type TestApi } from '../../test/fixtures/startApi.ts';
import { databaseUrl } from '../../test/fixtures/testDatabase.ts';
import { makeTemplate } from '../makeTemplate.ts';
import { inTurns, share, type Row } from '../measure.ts';
import { bareRoute } from './bareRoute.ts';
import { fillDatabase, LINES } from './fillDatabase.ts';
import { statementsOf } from './statementsOf.ts';

const FEW = 10_000;
const MANY = 1_000_000;
const CLAIM = 'C-1007';
const DESK = '/claims?state=in+review';

type FinanceView = Extract<ClaimAnswer, { audience: 'finance' }>;

const ROUNDS = 100;
/** Fewer: each is an event of the claim that is copied a hundred thousand times afterwards. */
const CORRECTIONS = 10;

/** Addresses under /api; the tenth page is known once nine were turned over. */
type Page = 'view' | 'first' | 'tenth' | 'search' | 'narrowed' | 'nothing';
/** What was measured; by a statement that touches no table a busier machine is not taken for a slower page. */
interface Times {
  /** The median as a multiple of that statement, and p95 as a multiple of that of the page's SQL and bytes bare. */
  pages: Record<Page, { steady: number; bare: number }>;
  correction: number;
  statements: number;
  /** Statements of a correction after which the owner of a code is asked. */
  asking: number;
  assessments: number;
}

/** The pages among 10,000 and among 1,000,000 lines: flat in time, and near to what the same SQL and bytes cost bare. */
export async function* benchPages(): AsyncGenerator<Row> {
  makeTemplate();
  const api = await startApi('bench');
  try {
    const noor = await api.as('noor.aldosari');
    const few = await timesAmong(api, noor, FEW);
    const many = await timesAmong(api, noor, MANY);
    yield* rowsOf(few, many);
  } finally {
    await api.close();
  }
}

const NAMES: Record<Page, string> = {
  view: 'view of a claim',
  first: 'first page of the Desk with its counts',
  tenth: 'tenth page of the Desk',
  search: 'search by words',
  narrowed: 'Desk narrowed to a code and an amount',
  nothing: 'Desk narrowed to nothing',
};
const AMONG = 'among 1,000,000 lines';

function* rowsOf(few: Times, many: Times): Generator<Row> {
  for (const page of ['view', 'first', 'tenth', 'search'] as const) {
    const aim = page === 'search' ? 3 : 1.5;
    const ratio = many.pages[page].bare;
    yield { what: `${NAMES[page]} ${AMONG}, p95`, baseline: 'its SQL and bytes bare', ratio, aim };
  }
  const flat = (what: string, of: (times: Times) => number): Row => {
    return { what: `${what} ${AMONG}`, baseline: 'the same among 10,000', ratio: of(many) / of(few), aim: 1.3 };
  };
  for (const page of ['view', 'first', 'tenth'] as const) yield flat(NAMES[page], (t) => t.pages[page].steady);
  for (const page of ['search', 'narrowed', 'nothing'] as const) {
    const ratio = many.pages[page].steady / many.pages.first.steady;
    yield { what: `${NAMES[page]} ${AMONG}`, baseline: 'the first page', ratio, aim: 3 };
  }
  yield flat('one correction', (t) => t.correction);
  const correction = `one correction ${AMONG}`;
  yield { what: correction, baseline: 'SQL statement', ratio: many.statements, aim: 25 };
  yield { what: `${correction} that asks an owner`, baseline: 'SQL statement', ratio: many.asking, aim: null };
  yield { what: correction, baseline: 'assessment', ratio: many.assessments, aim: 1 };
}

async function timesAmong(api: TestApi, noor: Client, lines: number): Promise<Times> {
  await fillDatabase(api.owner, CLAIM, lines / LINES);
  const { body } = await noor.get(`/claims/${CLAIM}`);
  const read = await reader(api.url);
  const addresses: Record<Page, string> = {
    view: `/claims/${CLAIM}`,
    first: DESK,
    tenth: `${DESK}&after=${await keyOfTenth(noor)}`,
    search: `${DESK}&q=curlew+sluice`,
    narrowed: `${DESK}&code=project:P-7&min=1000`,
    nothing: `${DESK}&code=grant:NOBODY`,
  };
  const steady = () => api.app.raw('select sum(n) from generate_series(1, 100000) n').then(() => undefined);
  const pages = {} as Times['pages'];
  for (const [page, address] of Object.entries(addresses))
    pages[page as Page] = await besideBare(() => read(address), steady);
  const correct = correcting(noor, body, 'fund', ['10', '20']);
  const times = await inTurns({ correct, steady }, CORRECTIONS);
  const sent = await fewestOf(correct);
  return {
    pages,
    correction: share(times.correct, 0.5) / share(times.steady, 0.5),
    statements: sent.length,
    assessments: sent.filter((sql) => /insert into "assessments"/.test(sql)).length,
    asking: await countAsking(noor),
  };
}

/** A page beside a server that runs its SQL, sends its bytes and does nothing else. */
async function besideBare(page: () => Promise<string>, steady: () => Promise<unknown>): Promise<Times['pages'][Page]> {
  const url = databaseUrl(process.env.DATABASE_APP_URL!, 'ebbet_bench');
  const bare = await bareRoute(url, await statementsOf(page), await page());
  const alone = async () => (await fetch(bare.url)).text();
  const times = await inTurns({ page, alone, steady }, ROUNDS);
  await bare.close();
  return {
    steady: share(times.page, 0.5) / share(times.steady, 0.5),
    bare: share(times.page, 0.95) / share(times.alone, 0.95),
  };
}

/** The statements of a correction after which the owner of a code is asked. */
async function countAsking(noor: Client): Promise<number> {
  const { body } = await noor.get(`/claims/${CLAIM}`);
  const correct = correcting(noor, body, 'costCentre', ['410', '420']);
  await correct();
  const { length } = await fewestOf(correct);
  // nobody is asked any more when the next is measured
  const { claim } = (await noor.get(`/claims/${CLAIM}`)).body;
  const { id, coding } = body.document.claim.lines[0]!;
  await noor.put(`/claims/${CLAIM}/lines/${id}`, { revision: claim.revision, set: { coding } });
  return length;
}

/** The SQL of a piece of work, of three times the one with the fewest statements: once a minute a session is prolonged. */
async function fewestOf(work: () => Promise<unknown>): Promise<string[]> {
  const times = [await statementsOf(work), await statementsOf(work), await statementsOf(work)];
  return times.reduce((least, sent) => (sent.length < least.length ? sent : least)).map(({ sql }) => sql);
}

/** Reads the bytes of an answer and does nothing with them, as the bare route's are read. */
async function reader(url: string): Promise<(path: string) => Promise<string>> {
  const credentials = { email: 'noor.aldosari@saltmarsh.example', password: 'saltmarsh' };
  const headers = { 'content-type': 'application/json' };
  const signedIn = await fetch(`${url}/api/session`, { method: 'POST', headers, body: JSON.stringify(credentials) });
  const cookie = cookiesOf(signedIn);
  return async (path) => {
    const response = await fetch(`${url}/api${path}`, { headers: { cookie } });
    if (!response.ok) throw new Error(`${path} was answered with ${response.status}`);
    return response.text();
  };
}

/** The key of the Desk's tenth page, by turning over nine. */
async function keyOfTenth(noor: Client): Promise<string> {
  let after = '';
  for (let page = 1; page < 10; page += 1) after = (await noor.get(`${DESK}${after && `&after=${after}`}`)).body.next;
  return after;
}

/**
 * Moves a line to a code and back to another, and goes on from the revision the claim has. Funds are asked about of nobody,
 * cost centres of their owners.
 */
function correcting(noor: Client, claim: FinanceView, dimension: string, codes: [string, string]): () => Promise<void> {
  let { revision } = claim.claim;
  const { id, coding } = claim.document.claim.lines[0]!;
  let next = coding?.[dimension] === codes[0] ? 1 : 0;
  return async () => {
    const set = { coding: { ...coding, [dimension]: codes[next]! } };
    const { status, body } = await noor.put(`/claims/${CLAIM}/lines/${id}`, { revision, set });
    if (status !== 200) throw new Error(`a correction was answered with ${status}: ${JSON.stringify(body)}`);
    ({ revision } = body.claim);
    next = 1 - next;
  };
}
