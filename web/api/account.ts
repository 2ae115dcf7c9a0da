import useSWR from 'swr';
import { nothing } from '../../contract/primitives.ts';
import {
  addedFactorAnswer,
  factorAnswer,
  factorOfferAnswer,
  sessionsAnswer,
  tokensAnswer,
} from '../../contract/session.ts';
import { getter, say, send } from './client.ts';

export type { SignedInAt, Token } from '../../contract/session.ts';

export const useSessions = () => useSWR('/sessions', getter(sessionsAnswer));
export const endSession = (id: string) => send('DELETE', `/sessions/${id}`, sessionsAnswer);
export const useTokens = () => useSWR('/tokens', getter(tokensAnswer));
export const revokeToken = (id: string) => send('DELETE', `/tokens/${id}`, tokensAnswer);

export const changePassword = (current: string, password: string) =>
  say('PUT', '/session/password', nothing, { current, password });
export const useFactor = () => useSWR('/session/factor', getter(factorAnswer));
export const offerFactor = () => say('POST', '/session/factor', factorOfferAnswer);
export const addFactor = (code: string) => say('PUT', '/session/factor', addedFactorAnswer, { code });
export const removeFactor = (current: string) => say('POST', '/session/factor/end', factorAnswer, { current });
