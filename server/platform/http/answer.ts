import type { Response } from 'express';
import type { z } from 'zod';

/**
 * Answers with a value as the contract describes it. What the contract does not name is left out, so nothing reaches a
 * screen that no schema speaks of; a value that does not fit is a fault of ours.
 */
export function answer<T extends z.ZodType>(res: Response, schema: T, value: z.input<T>, status = 200): void {
  res.status(status).json(schema.parse(value));
}
