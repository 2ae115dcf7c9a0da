import useSWR from 'swr';
import type { z } from 'zod';
import { addRowSchema, rowsAnswer, type EndRow, type SetupKind } from '../../contract/setup.ts';
import { getter, send } from './client.ts';

/** The rows of a kind of master data, for who keeps it. */
export const useRows = (kind: SetupKind) => useSWR(`/setup/${kind}`, getter(rowsAnswer), { revalidateOnFocus: false });

/** What is done with master data; each answers with all rows of the kind. */
export const setup = {
  add: (kind: SetupKind, row: z.input<typeof addRowSchema>) => send('POST', `/setup/${kind}`, rowsAnswer, row),
  end: (kind: SetupKind, row: EndRow) => send('POST', `/setup/${kind}/end`, rowsAnswer, row),
};
