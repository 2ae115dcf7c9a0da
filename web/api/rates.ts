import useSWR from 'swr';
import { correctionsAnswer, type AskCorrection } from '../../contract/rates.ts';
import { getter, send } from './client.ts';

export { askCorrectionSchema, type AskCorrection, type RateCorrection } from '../../contract/rates.ts';

const PATH = '/rate-corrections';
export const useCorrections = () => useSWR(PATH, getter(correctionsAnswer));

/** What is done about published rates that were entered wrongly; each answers with all corrections. */
export const corrections = {
  ask: (asked: AskCorrection) => send('POST', PATH, correctionsAnswer, asked),
  decide: (id: string, revision: number, how: 'confirm' | 'drop') =>
    send('POST', `${PATH}/${id}/${how}`, correctionsAnswer, { revision }),
};
