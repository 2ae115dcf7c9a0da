/**
 * TRUST_PROXY as Express takes it: a number of proxies in front ("1"), or addresses, networks and the names loopback,
 * linklocal and uniquelocal ("loopback, 10.0.0.0/8"). Nothing, "0" or "false" believe none. A RangeError for "true", which
 * would believe whatever a visitor writes.
 */
export function trustProxy(text: string | undefined): number | string[] | null {
  const given = (text ?? '').trim();
  if (given === '' || given === '0' || given === 'false') return null;
  if (/^\d{1,2}$/.test(given)) return Number(given);
  if (given === 'true') throw new RangeError('TRUST_PROXY takes a number of proxies or their addresses, not true');
  return given.split(',').map((part) => part.trim());
}
