import useSWR, { mutate } from 'swr';
import { nothing } from '../../contract/primitives.ts';
import { demoPeopleAnswer, sessionAnswer, signedInAnswer } from '../../contract/session.ts';
import { getter, say, send } from './client.ts';

export type { DemoPerson, Person } from '../../contract/session.ts';

export const useSession = () =>
  useSWR('/session', getter(sessionAnswer), {
    revalidateOnFocus: false,
    // a session that ended while the network was away is asked for where the person is, not by another page in its place
    revalidateOnReconnect: false,
  });
/** Asks whether the server answers. */
export const ping = () => send('GET', '/session', sessionAnswer);

export const demoPeople = () => send('GET', '/demo/people', demoPeopleAnswer);

/** `code` is the second factor, for those who have one. */
export async function signIn(email: string, password: string, code?: string): Promise<void> {
  await say('POST', '/session', signedInAnswer, { email, password, ...(code ? { code } : {}) });
  await mutate(() => true);
}

/** Ends the session; the page is loaded anew afterwards, so that nothing of the person goes on in it. */
export async function signOut(): Promise<void> {
  await say('DELETE', '/session', nothing);
}

/** Asks for a letter; the answer is the same for an e-mail nobody has. */
export const askForLetter = (email: string) => say('POST', '/session/forgotten', nothing, { email });
export const takeNewPassword = (letter: string, password: string) =>
  say('PUT', '/session/forgotten', nothing, { letter, password });
