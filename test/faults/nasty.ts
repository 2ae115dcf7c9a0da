import { z } from 'zod';

/** What people, programs and attackers put where something else is expected. */
export const NASTY: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1.5,
  2 ** 63,
  1e30,
  Number.MAX_SAFE_INTEGER,
  '',
  ' ',
  'x'.repeat(20_000),
  'a\0b',
  '\ud800',
  '\u202e\u0000',
  '9'.repeat(40),
  '-0.00',
  '1e5',
  '1.23456789',
  '0000-01-01',
  '2026-02-31',
  '9999-12-31',
  'infinity',
  "'; drop table claims; --",
  '../../etc/passwd',
  '__proto__',
  [],
  ['\0'],
  [1, '1', null],
  {},
  { '\0': 1 },
  { constructor: 'x' },
  Array.from({ length: 3000 }, (_, i) => String(i)),
  nested(60),
];

/** The same for parts of an address, encoded as a client would, or wrongly. */
export const NASTY_PARTS: readonly string[] = [
  '%00',
  '%ED%A0%80',
  '%',
  '%2e%2e%2f',
  '0',
  '-1',
  '9'.repeat(40),
  'x'.repeat(3000),
  "'",
  '2026-13',
  '0000-00',
  '%F0%9F%A7%BE',
  'null',
];

function nested(depth: number): unknown {
  return depth === 0 ? 'deep' : [nested(depth - 1)];
}

interface Shape {
  type?: string;
  properties?: Record<string, Shape>;
  items?: Shape;
  anyOf?: Shape[];
  oneOf?: Shape[];
  allOf?: Shape[];
  enum?: unknown[];
  const?: unknown;
  pattern?: string;
  minLength?: number;
  minimum?: number;
  minItems?: number;
}
const STRINGS = [
  'Tried out',
  '2026-03-02',
  '12.50',
  'EUR',
  'IE',
  '1',
  'C-1002',
  '4433',
  '2026-03',
  'a'.repeat(64),
  'Europe/Dublin',
  'one@saltmarsh.example',
  '1/2026-03-02/1',
  'costCentre:410',
  'mine',
];

/** A value that a schema of the contract accepts, with every field there; a schema it cannot please throws. */
export function sampleOf(schema: z.ZodType): unknown {
  let value = sample(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Shape);
  for (let tries = 0; tries < 100; tries += 1) {
    const at = faultAt(schema, value);
    if (at === null) return value;
    const better = [...STRINGS, 1, true, [], null]
      .map((put) => withAt(value, at, put))
      .find((other) => String(faultAt(schema, other)) !== String(at));
    if (better === undefined) throw new Error(`nothing fits at ${at.join('.')}`);
    value = better;
  }
  throw new Error('no sample was found');
}

/** Where a value does not fit, or null. */
function faultAt(schema: z.ZodType, value: unknown): (string | number)[] | null {
  const parsed = schema.safeParse(value);
  return parsed.success ? null : (parsed.error.issues[0]!.path as (string | number)[]);
}

/** `nth` tells the items of one array apart. */
function sample(shape: Shape, nth = 0): unknown {
  if (shape.const !== undefined) return shape.const;
  if (shape.enum) return shape.enum[0];
  const [first] = shape.anyOf ?? shape.oneOf ?? shape.allOf ?? [];
  if (first) return sample(first, nth);
  switch (shape.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(shape.properties ?? {}).map(([key, inner]) => [key, sample(inner, nth)]),
      );
    case 'array':
      return Array.from({ length: shape.items ? Math.max(1, shape.minItems ?? 1) : 0 }, (_, i) =>
        sample(shape.items!, nth + i),
      );
    case 'integer':
    case 'number':
      return Math.max(1, shape.minimum ?? 1);
    case 'boolean':
      return true;
    default:
      return stringFor(shape, nth);
  }
}

function stringFor({ pattern, minLength }: Shape, nth: number): string {
  const fitting = STRINGS.filter((s) => !pattern || new RegExp(pattern).test(s));
  return fitting[nth % fitting.length] ?? 'x'.repeat(minLength ?? 1);
}

/** The paths to every field of a value, from the whole ([]) to the leaves. */
export function pathsOf(value: unknown): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [[]];
  const keys = Array.isArray(value) ? value.map((_, i) => i) : Object.keys(value);
  return [[], ...keys.flatMap((key) => pathsOf((value as never)[key]).map((rest) => [key, ...rest]))];
}

/** A copy of a value with another one at a path. */
export function withAt(value: unknown, [key, ...rest]: readonly (string | number)[], put: unknown): unknown {
  if (key === undefined) return put;
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string | number, unknown>;
  copy[key] = withAt(copy[key], rest, put);
  return copy;
}
