import useSWR from 'swr';
import { clearingAnswer, clearingBegunAnswer, clearingsAnswer } from '../../contract/clearing.ts';
import { getter, send } from './client.ts';

export type { ClearingAnswer, ClearingRun } from '../../contract/clearing.ts';

/** How often a run that goes on is looked at. */
const LOOK_MS = 700;
export const useClearing = (run: string) =>
  useSWR(`/clearings/${encodeURIComponent(run)}`, getter(clearingAnswer), {
    refreshInterval: (seen) => (seen?.state === 'running' ? LOOK_MS : 0),
  });
export const useClearings = () => useSWR('/clearings', getter(clearingsAnswer));

export const clearing = {
  begin: (claims: { number: string; revision: number }[]) =>
    send('POST', '/clearings', clearingBegunAnswer, { claims }),
  stop: (run: string) => send('POST', `/clearings/${run}/stop`, clearingAnswer, {}),
  resume: (run: string) => send('POST', `/clearings/${run}/resume`, clearingAnswer, {}),
};
