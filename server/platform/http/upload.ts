import { AsyncResource } from 'node:async_hooks';
import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { shownName } from '../../../core/numbers/shownName.ts';
import { Refused } from './refusal.ts';

const MOST_BYTES = 15 * 1024 * 1024;

/** Takes one file in the field "file" into memory, beside at most `fields` short texts. A form that is none is refused. */
export function upload(fields: number): RequestHandler {
  const take = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: MOST_BYTES, files: 1, fields, fieldSize: 10_000, parts: fields + 2, headerPairs: 20 },
    defParamCharset: 'utf8',
  }).single('file');
  return (req, res, next) => {
    // the parser goes on from what the socket tells, which knows nothing of the request it is for
    const goOn = AsyncResource.bind(next as (error?: unknown) => void);
    take(req, res, (error: unknown) =>
      // What the parser throws besides its own errors is about the form: cut off, without a boundary, a broken header.
      goOn(error && !(error instanceof multer.MulterError) ? new Refused('not-a-form') : error),
    );
  };
}

/** The file of a request. Its name is shown, so what could turn text around or hide is taken out of it. */
export function fileOf(req: Request): { name: string; bytes: Buffer } {
  if (!req.file) throw new Refused('no-file');
  return { name: shownName(req.file.originalname) || 'file without a name', bytes: req.file.buffer };
}
