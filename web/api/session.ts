import useSWR, { mutate } from 'swr';
import { nothing } from '../../contract/primitives.ts';
import { demoPeopleAnswer, sessionAnswer, signedInAnswer } from '../../contract/session.ts';
import { getter, send } from './client.ts';

export type { DemoPerson, Person } from '../../contract/session.ts';

export const useSession = () => useSWR('/session', getter(sessionAnswer), { revalidateOnFocus: false });

export const demoPeople = () => send('GET', '/demo/people', demoPeopleAnswer);

/** `code` is the second factor, for those who have one. */
export async function signIn(email: string, password: string, code?: string): Promise<void> {
  await send('POST', '/session', signedInAnswer, { email, password, ...(code ? { code } : {}) });
  await mutate(() => true);
}

export async function signOut(): Promise<void> {
  await send('DELETE', '/session', nothing);
  await mutate(() => true, undefined, { revalidate: false });
  await mutate('/session');
}

/** Asks for a letter; the answer is the same for an e-mail nobody has. */
export const askForLetter = (email: string) => send('POST', '/session/forgotten', nothing, { email });
export const takeNewPassword = (letter: string, password: string) =>
  send('PUT', '/session/forgotten', nothing, { letter, password });
