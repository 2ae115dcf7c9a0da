import useSWR, { mutate } from 'swr';
import { get, send } from './client.ts';

export interface Person {
  id: string;
  name: string;
  email?: string;
  roles: string[];
}

export function useSession() {
  return useSWR('/session', get<{ person: Person | null; demo: boolean }>, { revalidateOnFocus: false });
}

export const demoPeople = () => get<{ people: Required<Person>[]; password: string }>('/demo/people');

export async function signIn(email: string, password: string): Promise<void> {
  await send('POST', '/session', { email, password });
  await mutate(() => true);
}

export async function signOut(): Promise<void> {
  await send('DELETE', '/session');
  await mutate(() => true, undefined, { revalidate: false });
  await mutate('/session');
}
