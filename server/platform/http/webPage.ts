import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RequestHandler } from 'express';
import helmet from 'helmet';

/** What stands in the built page for the nonce of each answer; vite.config.ts puts it there. */
const PLACEHOLDER = /EBBET_NONCE/g;
const BYTES = 16;

/**
 * The page, the same for every address of the application: what it is told at run time to style (a dialog that keeps the page behind it from
 * scrolling) carries a nonce that only this answer has.
 */
export function webPage(folder: string): RequestHandler {
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  return (req, res, next) => {
    const nonce = randomBytes(BYTES).toString('base64');
    contentPolicy(nonce)(req, res, (error) => {
      if (error) return next(error);
      res.set('Cache-Control', 'no-cache').type('html').send(page.replace(PLACEHOLDER, nonce));
    });
  };
}

/** What a page may load and do; without a nonce no style is written at run time. */
export function contentPolicy(nonce?: string): RequestHandler {
  const self = ["'self'"];
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: self,
        styleSrc: nonce === undefined ? self : [...self, `'nonce-${nonce}'`],
        fontSrc: self,
        connectSrc: self,
        workerSrc: self,
        imgSrc: ["'self'", 'data:'],
        formAction: self,
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: false,
  });
}
