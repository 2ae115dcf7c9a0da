import type { Response } from 'express';

/** Something people uploaded, or a page of it. */
export interface Paper {
  sha256: string;
  type: string;
  bytes: Buffer;
}

/** What people uploaded is served so that no browser runs or guesses anything in it. */
export function sendPaper(res: Response, file: Paper, disposition: 'inline' | 'attachment'): void {
  res
    .set('Content-Type', file.type)
    .set('X-Content-Type-Options', 'nosniff')
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
    .set('Content-Disposition', `${disposition}; filename="${file.sha256.slice(0, 16)}"`)
    .set('Cache-Control', 'no-store')
    .send(file.bytes);
}
