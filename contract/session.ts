import { z } from 'zod';
import { ROLES } from '../core/workflow/lifecycle.types.ts';
import { answeredId, moment } from './primitives.ts';

/** Signing in, and the tokens by which a person's scripts act for them. */
const role = z.enum(ROLES);
export const signInSchema = z.strictObject({
  email: z.string().min(1, 'Enter your e-mail.').max(320),
  password: z.string().min(1, 'Enter your password.').max(1024),
});
const person = z.object({ id: z.string(), name: z.string(), email: z.string(), roles: z.array(role) });
export const sessionAnswer = z.object({ person: person.nullable(), demo: z.boolean() });
export const signedInAnswer = z.object({ personId: z.string() });
export const demoPeopleAnswer = z.object({
  people: z.array(person),
  password: z.string(),
});

/** Where somebody is signed in: named by a digest, since the session's own name would let anybody in. */
const signedInAt = z.object({
  id: z.string().regex(/^[0-9a-f]{16}$/),
  since: moment,
  lastSeen: moment,
  /** What the browser said of itself when it signed in, in short. */
  device: z.string(),
  here: z.boolean(),
});
export const sessionsAnswer = z.object({ sessions: z.array(signedInAt) });

export const tokenSchema = z.strictObject({
  name: z.string().trim().min(1, 'Say what the token is for.').max(100),
  roles: z.array(role).min(1, 'Choose at least one role.').max(ROLES.length),
});
const token = z.object({
  id: answeredId,
  name: z.string(),
  roles: z.array(role),
  madeAt: moment,
  revokedAt: moment.nullable(),
});
export const tokensAnswer = z.object({ tokens: z.array(token) });
/** The token itself is shown once, when it is made. */
export const madeTokenAnswer = tokensAnswer.extend({ token: z.string() });

export type SignedInAt = z.infer<typeof signedInAt>;
export type Token = z.infer<typeof token>;
export type Person = z.infer<typeof person>;
