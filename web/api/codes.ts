import useSWR, { mutate } from 'swr';
import { ownCodesAnswer, type Favourite, type OwnCodes, type SaveCoding } from '../../contract/codes.ts';
import { getter, send } from './client.ts';

export type { OwnCodes, SavedCoding } from '../../contract/codes.ts';

const PATH = '/own/codes';
/** One's own codes; who is slow to get them chooses without. */
export const useOwnCodes = () => useSWR(PATH, getter(ownCodesAnswer), { revalidateOnFocus: false });

const shown = async (answer: Promise<OwnCodes>): Promise<void> => {
  await mutate(PATH, await answer, { revalidate: false });
};
/** What is done with one's own codes; what is shown follows. */
export const ownCodes = {
  keep: (favourite: Favourite) => shown(send('PUT', `${PATH}/favourites`, ownCodesAnswer, favourite)),
  save: (coding: SaveCoding) => shown(send('POST', `${PATH}/codings`, ownCodesAnswer, coding)),
  forget: (id: string) => shown(send('DELETE', `${PATH}/codings/${id}`, ownCodesAnswer)),
};
