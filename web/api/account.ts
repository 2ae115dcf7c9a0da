import useSWR from 'swr';
import { sessionsAnswer, tokensAnswer } from '../../contract/session.ts';
import { getter, send } from './client.ts';

export type { SignedInAt, Token } from '../../contract/session.ts';

export const useSessions = () => useSWR('/sessions', getter(sessionsAnswer));
export const endSession = (id: string) => send('DELETE', `/sessions/${id}`, sessionsAnswer);
export const useTokens = () => useSWR('/tokens', getter(tokensAnswer));
export const revokeToken = (id: string) => send('DELETE', `/tokens/${id}`, tokensAnswer);
