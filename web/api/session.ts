import useSWR, { mutate } from 'swr';
import { nothing } from '../../contract/primitives.ts';
import { demoPeopleAnswer, sessionAnswer, signedInAnswer } from '../../contract/session.ts';
import { getter, send } from './client.ts';

export type { Person } from '../../contract/session.ts';

export const useSession = () => useSWR('/session', getter(sessionAnswer), { revalidateOnFocus: false });

export const demoPeople = () => send('GET', '/demo/people', demoPeopleAnswer);

export async function signIn(email: string, password: string): Promise<void> {
  await send('POST', '/session', signedInAnswer, { email, password });
  await mutate(() => true);
}

export async function signOut(): Promise<void> {
  await send('DELETE', '/session', nothing);
  await mutate(() => true, undefined, { revalidate: false });
  await mutate('/session');
}
