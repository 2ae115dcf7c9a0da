import type { z } from 'zod';

type RawIssue = z.core.$ZodRawIssue;

const TYPES: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  bigint: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  null: 'null',
  undefined: 'left out',
};
const UNITS: Record<string, string> = { string: 'characters', array: 'entries', set: 'entries', map: 'entries' };
const MOST_OPTIONS = 20;

/**
 * What is wrong with a value by a schema, in words of ours that follow the name of its field; undefined where the schema
 * has words of its own. Given to `safeParse` as `error`. Example: a text of 21 where 20 are allowed → "has more than 20
 * characters"; a number where a text is due → "has to be a text".
 */
export function sayIssue(issue: RawIssue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? 'is missing' : `has to be ${TYPES[issue.expected] ?? issue.expected}`;
    case 'too_small':
      return saySmall(issue.origin, Number(issue.minimum));
    case 'too_big':
      return UNITS[issue.origin]
        ? `has more than ${issue.maximum} ${UNITS[issue.origin]}`
        : `is more than ${issue.maximum}`;
    case 'invalid_value':
      return `is none of ${issue.values.slice(0, MOST_OPTIONS).join(', ')}`;
    case 'unrecognized_keys':
      return `has a field that is not known here: ${String(issue.keys[0]).slice(0, 100)}`;
    case 'invalid_union':
      return 'is none of the forms allowed here';
    case 'custom':
      return undefined;
    default:
      return 'is not written as it has to be';
  }
}

function saySmall(origin: string, minimum: number): string {
  const unit = UNITS[origin];
  if (!unit) return `is less than ${minimum}`;
  return minimum === 1 ? 'is empty' : `has fewer than ${minimum} ${unit}`;
}
