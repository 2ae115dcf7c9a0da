import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import type { Answer, Client } from '../fixtures/startApi.ts';

/** The session of a page over HTTP, for what a story needs and other stories do by hand. */
export function clientOf(page: Page, nextKey: () => string = randomUUID): Client {
  const send = async (method: string, path: string, data?: unknown): Promise<Answer> => {
    const headers = { 'idempotency-key': nextKey() };
    const answer = await page.request.fetch(`/api${path}`, {
      method,
      headers,
      ...(data === undefined ? {} : { data }),
    });
    return { status: answer.status(), body: await answer.json().catch(() => null), headers: new Headers() };
  };
  return {
    send,
    once: (key) => clientOf(page, () => key),
    get: (path) => send('GET', path),
    post: (path, body) => send('POST', path, body),
    put: (path, body) => send('PUT', path, body),
  };
}
