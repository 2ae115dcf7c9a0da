import { z } from 'zod';
import { assessmentSchema } from '../core/documents/assessment.schema.ts';
import { eventSchema, journalSchema } from '../core/documents/record.schema.ts';
import { caseSchema } from '../core/documents/case.schema.ts';
import { print, readOptions, Usage, type Command } from './options.ts';

const SCHEMAS: Record<string, z.ZodType> = {
  'ebbet-case/1': caseSchema,
  'ebbet-assessment/1': assessmentSchema,
  'ebbet-event/2': eventSchema,
  'ebbet-journal/1': journalSchema,
};

export const FORMATS = Object.keys(SCHEMAS);

const help = `Usage: ebbet schema FORMAT

Prints the JSON Schema (draft 2020-12) of a document format: ${FORMATS.join(', ')}.
A schema says the shapes; what one part of a document says about another is checked by ebbet assess.`;

/** The JSON Schema of a format, as it is kept in docs/schemas. */
export function writeSchema(format: string): string {
  const schema = z.toJSONSchema(SCHEMAS[format]!, { io: 'input' });
  return JSON.stringify({ $id: `urn:ebbet:${format.replace('/', ':')}`, title: format, ...schema }, null, 2);
}

async function run(args: string[]): Promise<number> {
  const [format] = readOptions(args, {}).operands;
  if (!format || !FORMATS.includes(format)) throw new Usage(`it knows ${FORMATS.join(', ')}`);
  await print(writeSchema(format));
  return 0;
}

export const schemaCommand: Command = { help, run };
