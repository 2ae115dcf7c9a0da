import { z } from 'zod';
import { mappingSchema } from '../../platform/outside/statements/csv.ts';

/** What goes with a statement file: for a table, the card it is of and which column holds what. */
export const importSchema = z.strictObject({
  card: z
    .string()
    .regex(/^\d{4}$/)
    .optional(),
  mapping: mappingSchema.optional(),
});
export type ImportOptions = z.infer<typeof importSchema>;
