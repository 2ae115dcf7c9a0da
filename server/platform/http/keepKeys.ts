import type { RequestHandler } from 'express';
import { KEY_HEADER } from '../../../contract/route.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type { Context } from '../context.ts';
import { withKey } from '../db/once.ts';
import { sha256 } from '../history/sha256.ts';
import { Refused } from './refusal.ts';

const KEY = /^[\x21-\x7e]{8,100}$/;
const READS = new Set(['GET', 'HEAD']);

/** Lets the transaction of a write that carries a key happen once, however often the request is sent. */
export function keepKeys({ clock }: Pick<Context, 'clock'>): RequestHandler {
  return (req, _res, next) => {
    const key = req.get(KEY_HEADER);
    if (key === undefined || READS.has(req.method) || !req.actor) return next();
    if (!KEY.test(key)) throw new Refused('key-unusable');
    const hash = sha256(canonical([req.query, req.body ?? null]));
    withKey({ clock, person: req.actor.id, act: `${req.method} ${req.path}`, key, hash }, next);
  };
}
