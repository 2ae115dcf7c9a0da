import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { ROUTES } from './routes.ts';

/** Every list of a request's body with where it stands. */
function listsIn(schema: unknown, path: string, found: { path: string; distinct: boolean; element: z.ZodType }[] = []) {
  const def = (schema as { _zod?: { def: any } })._zod?.def;
  if (!def) return found;
  switch (def.type) {
    case 'array':
      found.push({ path, distinct: (def.checks ?? []).length > 0 && hasRefine(def), element: def.element });
      return listsIn(def.element, `${path}[]`, found);
    case 'object':
      for (const [key, value] of Object.entries((schema as z.ZodObject).shape)) listsIn(value, `${path}.${key}`, found);
      return found;
    case 'optional':
    case 'nullable':
    case 'default':
      return listsIn(def.innerType, path, found);
    case 'union':
      for (const option of def.options) listsIn(option, path, found);
      return found;
    case 'pipe':
      return listsIn(def.in, path, found);
    default:
      return found;
  }
}
const hasRefine = (def: any): boolean => def.checks.some((check: any) => check._zod.def.check === 'custom');

/** Whether an element names something: a text that is an id, or an object with one. */
const NAMES = ['id', 'line', 'number', 'claim', 'advance'];
const names = (element: z.ZodType): boolean => {
  const def = (element as any)._zod.def;
  return def.type === 'string' || (def.type === 'object' && NAMES.some((key) => key in (element as z.ZodObject).shape));
};

describe('every list of a request that names things', () => {
  const lists = ROUTES.flatMap((r) => (r.body && r.body !== 'file' ? listsIn(r.body, `${r.method} ${r.path}`) : []));
  it('is found', () => expect(lists.length).toBeGreaterThan(30));
  it('names none of them twice', () => {
    // texts that are no names of records: people who took part, codes of a merchant, files' cells; items and shares are checked as documents
    const free = /\.(names|provided|key|items|shares|tax|taxes|lines\[\]\.)|setup/;
    const loose = lists.filter((l) => names(l.element) && !l.distinct && !free.test(l.path)).map((l) => l.path);
    expect([...new Set(loose)]).toEqual([]);
  });
});
