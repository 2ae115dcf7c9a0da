import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BankFault, bankAt, type Bank } from './bank.ts';

/** A bank that sends what it should not. */
let server: Server;
let bank: Bank;
let followed = 0;
const sends: Record<string, (res: ServerResponse) => void> = {
  '/deliveries': (res) => {
    const real = { id: 'D-1', day: '2031-03-01' };
    const odd = [null, 7, { id: 'D-2' }, { id: 'D-3', day: 'tomorrow' }, { id: 'x'.repeat(300), day: real.day }];
    res.end(JSON.stringify([real, ...odd]));
  },
  '/deliveries/elsewhere': (res) => res.writeHead(302, { location: '/secret' }).end(),
  '/secret': (res) => {
    followed += 1;
    res.end('what is not meant for us');
  },
  '/deliveries/endless': (res) => {
    const more = () => res.writable && res.write(Buffer.alloc(1024 * 1024), () => setImmediate(more));
    more();
  },
  '/deliveries/most': (res) => res.end(Buffer.alloc(15 * 1024 * 1024)),
  '/deliveries/more': (res) => res.end(Buffer.alloc(15 * 1024 * 1024 + 1)),
  '/deliveries/cut': (res) => {
    res.writeHead(200, { 'content-length': '1000' });
    res.write('half');
    setTimeout(() => res.destroy(), 50);
  },
};
beforeAll(async () => {
  server = createServer((req, res) => (sends[req.url!] ?? ((r) => r.writeHead(404).end()))(res)).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  bank = bankAt(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const said = (id: string) =>
  bank.fetch(id).then(
    () => 'taken',
    (error: unknown) => (error instanceof BankFault ? error.message : 'another error'),
  );

describe('what the bank sends', () => {
  it('is taken from the bank alone: nothing that it points to is fetched', async () => {
    expect(await said('elsewhere')).toBe('The bank answered 302.');
    expect(followed).toBe(0);
  });
  it('has a greatest size, and has to arrive whole', async () => {
    expect([await said('most'), await said('more')]).toEqual(['taken', expect.stringContaining('larger than 15 MB')]);
    expect(await said('endless')).toContain('larger than 15 MB');
    expect(await said('cut')).toContain('broke off');
    expect(await said('none')).toBe('The bank answered 404.');
  });
  it('is a list of nights with a day each; anything else in it is left out', async () => {
    expect(await bank.deliveries()).toEqual([{ id: 'D-1', day: '2031-03-01' }]);
    sends['/deliveries'] = (res) => res.end('{"no":"list"}');
    await expect(bank.deliveries()).rejects.toThrow('no list');
    sends['/deliveries'] = (res) => res.end('not even JSON');
    await expect(bank.deliveries()).rejects.toThrow('no list');
  });
});
