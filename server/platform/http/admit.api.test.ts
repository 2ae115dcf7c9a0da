import express from 'express';
import pino from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { z } from 'zod';
import type { RouteContract } from '../../../contract/route.ts';
import { ROUTES } from '../../../contract/routes.ts';
import { ROLES, type Role } from '../../../core/workflow/lifecycle.types.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { admit } from './admit.ts';
import { answerErrors } from './answerErrors.ts';
import { sampleOf } from '../../../test/faults/nasty.ts';

/** Somebody of each role alone, somebody of none, and nobody. */
let api: TestApi;
const people = new Map<Role | 'no role', Client>();
let tried = 0;
beforeAll(async () => {
  api = await startApi('admit');
  const { rows } = await api.owner.raw(`select password_hash as hash from credentials limit 1`);
  for (const role of [...ROLES, 'no role'] as const) {
    const mail = role.replace(' ', '-');
    const id = `T-${mail}`;
    const person = {
      id,
      name: role,
      email: `${mail}@saltmarsh.example`,
      kind: 'employee',
      entity_id: 'IE',
      currency: 'EUR',
    };
    await api.owner('people').insert(person);
    await api.owner('credentials').insert({ person_id: id, password_hash: rows[0].hash });
    if (role !== 'no role') await api.owner('person_roles').insert({ person_id: id, role });
    people.set(role, await api.as(mail));
  }
});
afterAll(async () => {
  process.stdout.write(`${tried} pairs of a route and a person tried\n`);
  await api.close();
});

const PARAMS: Record<string, string> = { number: 'C-1002', kind: 'budgets', card: '4433', month: '2026-03' };
const pathOf = ({ path, query }: RouteContract) => {
  const asked = query ? new URLSearchParams(sampleOf(query) as Record<string, string>).toString() : '';
  return `${path.replace(/:(\w+)/g, (_, name: string) => PARAMS[name] ?? '1')}?${asked}`;
};
const bodyOf = ({ body }: RouteContract) => (body && body !== 'file' ? sampleOf(body as z.ZodType) : undefined);
async function answerTo(client: Client, route: RouteContract): Promise<string> {
  tried += 1;
  const { status, body } = await client.send(route.method.toUpperCase(), pathOf(route), bodyOf(route));
  return status < 400 ? 'passed' : ((body as { code: string }).code ?? String(status));
}
/** Signing out would end the person for the tests that follow; a token is refused where it asks for a role one has not; a stream does not end. */
const routes = ROUTES.filter(
  (r) => r.path !== '/session' && !(r.method === 'post' && r.path === '/tokens') && r.type !== 'text/event-stream',
);
const name = (route: RouteContract) => `${route.method} ${route.path}`;

describe('every address', () => {
  it('has to be named, else it is not there, whatever would serve it', async () => {
    const app = express();
    app.use(admit(), (_req, res) => void res.send('served'));
    app.use(answerErrors(pino({ level: 'silent' })));
    const server = app.listen(0);
    const { port } = server.address() as { port: number };
    const answerOf = async (path: string) => (await fetch(`http://127.0.0.1:${port}${path}`)).status;
    expect([await answerOf('/session'), await answerOf('/nowhere')]).toEqual([200, 404]);
    server.close();
  });
  it('asks who it is, unless it is for anybody', async () => {
    const open: string[] = [];
    for (const route of routes)
      if ((await answerTo(api.anonymous(), route)) !== 'not-signed-in') open.push(name(route));
    expect(open).toEqual(routes.filter((r) => r.who === 'anybody').map(name));
  });
  it.each([...ROLES, 'no role'] as const)('lets %s pass where the contract says so, and nowhere else', async (role) => {
    const refused: string[] = [];
    for (const route of routes)
      if ((await answerTo(people.get(role)!, route)) === 'not-allowed') refused.push(name(route));
    const expected = routes.filter(({ who }) => typeof who !== 'string' && !who.includes(role as Role)).map(name);
    expect(refused).toEqual(expected);
  });
});
