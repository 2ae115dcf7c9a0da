import useSWR from 'swr';
import { failedJobsAnswer } from '../../contract/jobs.ts';
import { getter, send } from './client.ts';

const PATH = '/failed-jobs';
export const useFailedJobs = () => useSWR(PATH, getter(failedJobsAnswer));
export const failedJobs = { again: (id: string) => send('POST', `${PATH}/${id}/again`, failedJobsAnswer, {}) };
