const PURPOSES: Record<string, string> = { claim: 'posting', payment: 'payment of a claim' };

/** What a journal was made for, in a word or two. */
export const sayPurpose = (purpose: string): string => PURPOSES[purpose] ?? purpose;
