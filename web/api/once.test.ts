import { beforeEach, describe, expect, it, vi } from 'vitest';
import { keepKeys, once } from './once.ts';

const failure = (status: number) => Object.assign(new Error(String(status)), { status });

describe('a write', () => {
  beforeEach(() => {
    vi.useFakeTimers();
  });
  const run = async <T>(work: Promise<T>): Promise<T | string> => {
    const settled = work.catch((error: Error) => error.message);
    await vi.runAllTimersAsync();
    return settled;
  };
  it('is sent again with the same key while nothing is answered', async () => {
    const keys: string[] = [];
    const answers = [failure(0), failure(502), null];
    const result = await run(
      once('POST /x 1', async (key) => {
        keys.push(key);
        const fault = answers.shift();
        if (fault) throw fault;
        return 'done';
      }),
    );
    expect([result, keys.length, new Set(keys).size]).toEqual(['done', 3, 1]);
  });
  it('has the same key when it is asked for anew after a failure, and another one once its outcome is known', async () => {
    const keys: string[] = [];
    const attempt = (status: number | null) => (key: string) => {
      keys.push(key);
      return status === null ? Promise.resolve('done') : Promise.reject(failure(status));
    };
    await run(once('POST /y 1', attempt(0)));
    await run(once('POST /y 1', attempt(null)));
    await run(once('POST /y 1', attempt(null)));
    expect([new Set(keys.slice(0, 4)).size, new Set(keys).size]).toEqual([1, 2]);
  });
  it('is not sent again where the server said no', async () => {
    let sent = 0;
    const no = () => {
      sent += 1;
      return Promise.reject(failure(409));
    };
    expect([await run(once('POST /z 1', no)), sent]).toEqual(['409', 1]);
  });
  it('keeps its key while it is turned away unread: an earlier one may have been done', async () => {
    const keys: string[] = [];
    for (const status of [0, 401, 429, 401])
      await run(once('POST /u 1', (key) => (keys.push(key), Promise.reject(failure(status)))));
    await run(once('POST /u 1', (key) => Promise.resolve(keys.push(key))));
    expect(new Set(keys).size).toBe(1);
    await run(once('POST /u 1', (key) => Promise.resolve(keys.push(key))));
    expect(new Set(keys).size).toBe(2);
  });
  it('has the same key after a reload, as long as its outcome is not known', async () => {
    let stored: readonly [string, string][] = [];
    keepKeys([], (keys) => (stored = keys));
    const keys: string[] = [];
    await run(once('POST /w 1', (key) => (keys.push(key), Promise.reject(failure(0)))));
    expect(stored).toEqual([['POST /w 1', keys[0]]]);
    await run(once('POST /w 1', (key) => Promise.resolve(keys.push(key))));
    expect([new Set(keys).size, stored]).toEqual([1, []]);
    keepKeys([['POST /v 1', 'kept-key']], () => undefined);
    await run(once('POST /v 1', (key) => Promise.resolve(keys.push(key))));
    expect(keys.at(-1)).toBe('kept-key');
  });
});
