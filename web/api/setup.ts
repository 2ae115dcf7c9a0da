import useSWR from 'swr';
import { rowsAnswer, type SetupKind } from '../../contract/setup.ts';
import { getter } from './client.ts';

/** The rows of a kind of master data, for who keeps it. */
export const useRows = (kind: SetupKind) => useSWR(`/setup/${kind}`, getter(rowsAnswer), { revalidateOnFocus: false });
