import type { ClaimAnswer } from '../../contract/claims.ts';
import { cookiesOf, startApi, type Client, type TestApi } from '../../test/fixtures/startApi.ts';
import { databaseUrl } from '../../test/fixtures/testDatabase.ts';
import { makeTemplate } from '../makeTemplate.ts';
import { median, type Row } from '../measure.ts';
import { bareRoute } from './bareRoute.ts';
import { fillDatabase, LINES } from './fillDatabase.ts';
import { statementsOf } from './statementsOf.ts';

const FEW = 10_000;
const MANY = 1_000_000;
const CLAIM = 'C-1007';
const DESK = '/claims?state=in+review';

type FinanceView = Extract<ClaimAnswer, { audience: 'finance' }>;

/** Times of the pages in milliseconds, with what the SQL of a view and of a correction was. */
type Times = Record<
  'view' | 'bare' | 'first' | 'tenth' | 'search' | 'narrowed' | 'nothing' | 'correction' | 'steady',
  number
> & {
  statements: number;
  /** Of a correction after which the owner of a code is asked. */
  asking: number;
  assessments: number;
};

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

function* rowsOf(few: Times, many: Times): Generator<Row> {
  const among = 'among 1,000,000 lines';
  const flat = (what: string, of: 'view' | 'first' | 'tenth' | 'correction', aim: number | null): Row => {
    return {
      what: `${what} ${among}`,
      baseline: 'the same among 10,000',
      ratio: many[of] / many.steady / (few[of] / few.steady),
      aim,
    };
  };
  yield {
    what: `view of a claim ${among}`,
    baseline: 'its SQL and bytes bare',
    ratio: many.view / many.bare,
    aim: 1.5,
  };
  yield flat('view of a claim', 'view', 1.3);
  yield flat('first page of the Desk with its counts', 'first', 1.3);
  yield flat('tenth page of the Desk', 'tenth', 1.3);
  yield { what: `search by words ${among}`, baseline: 'the first page', ratio: many.search / many.first, aim: 3 };
  yield {
    what: `Desk narrowed to a code and an amount ${among}`,
    baseline: 'the first page',
    ratio: many.narrowed / many.first,
    aim: 3,
  };
  yield {
    what: `Desk narrowed to nothing ${among}`,
    baseline: 'the first page',
    ratio: many.nothing / many.first,
    aim: 3,
  };
  yield flat('one correction', 'correction', 1.3);
  yield { what: `one correction ${among}`, baseline: 'SQL statement', ratio: many.statements, aim: 25 };
  yield {
    what: `one correction that asks the owner of a code ${among}`,
    baseline: 'SQL statement',
    ratio: many.asking,
    aim: null,
  };
  yield { what: `one correction ${among}`, baseline: 'assessment', ratio: many.assessments, aim: 1 };
}

async function timesAmong(api: TestApi, noor: Client, lines: number): Promise<Times> {
  await fillDatabase(api.owner, CLAIM, lines / LINES);
  const { body } = await noor.get(`/claims/${CLAIM}`);
  const read = await reader(api.url);
  const view = () => read(`/claims/${CLAIM}`);
  const statements = await statementsOf(view);
  const bare = await bareRoute(
    databaseUrl(process.env.DATABASE_APP_URL!, 'ebbet_bench'),
    statements,
    JSON.stringify(body),
  );
  const tenth = await keyOfTenth(noor);
  const correct = correcting(noor, body, 'fund', ['10', '20']);
  await correct();
  const sent = (await statementsOf(correct)).map(({ sql }) => sql);
  const times = {
    view: await median(view),
    bare: await median(async () => (await fetch(bare.url)).text()),
    first: await median(() => read(DESK)),
    tenth: await median(() => read(`${DESK}&after=${tenth}`)),
    search: await median(() => read(`${DESK}&q=curlew+sluice`)),
    narrowed: await median(() => read(`${DESK}&code=project:P-7&min=1000`)),
    nothing: await median(() => read(`${DESK}&code=grant:NOBODY`)),
    correction: await median(correct),
    // The same at both times; by it a machine that is busier the second time is not taken for a slower page.
    steady: await median(() => api.app.raw('select sum(n) from generate_series(1, 100000) n')),
    statements: sent.length,
    assessments: sent.filter((sql) => /insert into "assessments"/.test(sql)).length,
  };
  await bare.close();
  return { ...times, asking: await countAsking(noor) };
}

/** The statements of a correction after which the owner of a code is asked. */
async function countAsking(noor: Client): Promise<number> {
  const { body } = await noor.get(`/claims/${CLAIM}`);
  const correct = correcting(noor, body, 'costCentre', ['410', '420']);
  await correct();
  return (await statementsOf(correct)).length;
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
 * Moves a line from one code to another and back, and goes on from the revision the claim has. Funds are asked about of
 * nobody, cost centres of their owners.
 */
function correcting(noor: Client, claim: FinanceView, dimension: string, codes: [string, string]): () => Promise<void> {
  let { revision } = claim.claim;
  const { id, coding } = claim.document.claim.lines[0]!;
  return async () => {
    const set = { coding: { ...coding, [dimension]: codes[revision % 2]! } };
    const { status, body } = await noor.put(`/claims/${CLAIM}/lines/${id}`, { revision, set });
    if (status !== 200) throw new Error(`a correction was answered with ${status}: ${JSON.stringify(body)}`);
    revision = body.claim.revision;
  };
}
