import useSWR from 'swr';
import { budgetsAnswer, personAnswer, splitsAnswer, versionAnswer } from '../../contract/beside.ts';
import { getter } from './client.ts';

const pathOf = (number: string, rest: string): string => `/claims/${encodeURIComponent(number)}/${rest}`;
const once = { revalidateOnFocus: false };

/** A claim as an earlier version was submitted. */
export const useVersion = (number: string, version: number) =>
  useSWR(pathOf(number, `versions/${version}`), getter(versionAnswer), once);
/** What the claimant of a claim claimed in a year. */
export const usePerson = (number: string) => useSWR(pathOf(number, 'person'), getter(personAnswer), once);
/** The budgets a claim charges; asked for again for each revision. */
export const useBudgets = (number: string, revision: number) =>
  useSWR([pathOf(number, 'budgets'), revision], ([path]) => getter(budgetsAnswer)(path), once);
/** Splits that lines of a claim may be divided by: of its plan, and of earlier claims of the person. */
export const useSplits = (number: string) => useSWR(pathOf(number, 'splits'), getter(splitsAnswer), once);
