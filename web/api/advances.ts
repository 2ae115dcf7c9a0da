import useSWR from 'swr';
import {
  advanceAnswer,
  advancesAnswer,
  begunAnswer,
  registerAnswer,
  type AdvanceAnswer,
  type AdvanceSet,
  type BeginAdvance,
  type GiveBack,
  type Grant,
  type PayOut,
} from '../../contract/advances.ts';
import { pathOfAct } from '../../contract/route.ts';
import { act, getter, send } from './client.ts';
import { upload } from './upload.ts';

export type { AdvanceAnswer, AdvanceRowAnswer, AdvanceSet, RegisterAnswer } from '../../contract/advances.ts';

const pathOf = (number: string, rest = ''): string => `/advances/${encodeURIComponent(number)}${rest}`;
const post = (number: string, name: string, body: object): Promise<AdvanceAnswer> =>
  act(pathOf(number, `/${pathOfAct(name)}`), advanceAnswer, body);
type Without<T> = Omit<T, 'revision'>;

export const useAdvances = () => useSWR('/advances', getter(advancesAnswer));
export const useAdvance = (number: string) => useSWR(pathOf(number), getter(advanceAnswer));
export const useRegister = (on: string) =>
  useSWR(`/advances/register?on=${on}`, getter(registerAnswer), { keepPreviousData: true });

/** What is done with advances; each act answers with the advance as it is afterwards. */
export const advances = {
  load: (number: string): Promise<AdvanceAnswer> => send('GET', pathOf(number), advanceAnswer),
  begin: (begin: BeginAdvance) => send('POST', '/advances', begunAnswer, begin),
  edit: (number: string, revision: number, set: AdvanceSet): Promise<AdvanceAnswer> =>
    send('PUT', pathOf(number), advanceAnswer, { revision, set }),
  act: (number: string, revision: number, name: 'request' | 'callBack' | 'withdraw' | 'bringBack' | 'takeBack') =>
    post(number, name, { revision }),
  approve: (number: string, revision: number, comment: string) => post(number, 'approve', { revision, comment }),
  decline: (number: string, revision: number, reason: string) => post(number, 'decline', { revision, reason }),
  grant: (number: string, revision: number, grant: Without<Grant>) => post(number, 'grant', { revision, ...grant }),
  extend: (number: string, revision: number, dueBy: string, reason: string) =>
    post(number, 'extend', { revision, dueBy, reason }),
  payOut: (number: string, revision: number, paid: Without<PayOut>) => post(number, 'payOut', { revision, ...paid }),
  giveBack: (number: string, revision: number, back: Without<GiveBack>) =>
    post(number, 'giveBack', { revision, ...back }),
  attach: (number: string, revision: number, file: File): Promise<AdvanceAnswer> =>
    upload(pathOf(number, `/attachments?revision=${revision}`), advanceAnswer, file, () => undefined),
  detach: (number: string, revision: number, id: string): Promise<AdvanceAnswer> =>
    send('DELETE', pathOf(number, `/attachments/${id}?revision=${revision}`), advanceAnswer),
  prove: (number: string, revision: number, payment: string, file: File): Promise<AdvanceAnswer> =>
    upload(pathOf(number, `/payments/${payment}/proofs?revision=${revision}`), advanceAnswer, file, () => undefined),
};
