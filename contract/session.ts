import { z } from 'zod';
import { ROLES } from '../core/workflow/lifecycle.types.ts';
import { answeredId, distinct, moment } from './primitives.ts';

/** Signing in, and the tokens by which a person's scripts act for them. */
const role = z.enum(ROLES);
export const signInSchema = z.strictObject({
  email: z.string().min(1, 'Enter your e-mail.').max(320),
  password: z.string().min(1, 'Enter your password.').max(1024),
  /** Of the authenticator, or one kept for a lost phone; asked for once the password fits. */
  code: z.string().trim().min(1, 'Enter the code.').max(40).optional(),
});
const demoPerson = z.object({ id: z.string(), name: z.string(), email: z.string(), roles: z.array(role) });
/** Whether one signs in with a second factor; `needed` says that roles of finance wait for it. */
const person = demoPerson.extend({ factor: z.enum(['on', 'off', 'needed']) });
export const sessionAnswer = z.object({ person: person.nullable(), demo: z.boolean() });
export const signedInAnswer = z.object({ personId: z.string() });
export const demoPeopleAnswer = z.object({
  people: z.array(demoPerson),
  password: z.string(),
});

export const SHORTEST_PASSWORD = 10;
const newPassword = z
  .string()
  .min(SHORTEST_PASSWORD, `Take at least ${SHORTEST_PASSWORD} characters; several words are easy to remember.`)
  .max(1024);
const currentPassword = z.string().min(1, 'Enter the password you have now.').max(1024);
export const changePasswordSchema = z.strictObject({ current: currentPassword, password: newPassword });
export const forgottenSchema = z.strictObject({
  email: z.string().max(320).trim().pipe(z.email('is not an e-mail address')),
});
/** `letter` is what the link of the mail holds. */
export const newPasswordSchema = z.strictObject({ letter: z.string().min(1).max(100), password: newPassword });

/** What an authenticator is given: the secret, and as the address that its camera reads. */
export const factorOfferAnswer = z.object({ secret: z.string(), address: z.string() });
export const factorAnswer = z.object({ on: z.boolean(), codesLeft: z.number().int() });
export const addFactorSchema = z.strictObject({ code: z.string().trim().min(1, 'Enter the code.').max(40) });
/** The codes for a lost phone are shown once, when they are made. */
export const addedFactorAnswer = factorAnswer.extend({ codes: z.array(z.string()) });
export const removeFactorSchema = z.strictObject({ current: currentPassword });

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
  roles: distinct(z.array(role).min(1, 'Choose at least one role.').max(ROLES.length)),
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
export type DemoPerson = z.infer<typeof demoPerson>;
export type SignIn = z.infer<typeof signInSchema>;
export type Factor = z.infer<typeof factorAnswer>;
