/** Why what was typed into a cell cannot be, or null. */
type ProblemOf = (typed: string) => string | null;

export const longerThan =
  (most: number): ProblemOf =>
  (typed) =>
    typed.trim().length > most ? `At most ${most} characters; these are ${typed.trim().length}.` : null;

export const problemOfCountry: ProblemOf = (typed) =>
  /^([a-z]{2})?$/i.test(typed.trim()) ? null : 'Two letters, such as IE.';

/** What it is for, of a plan or a claim. */
export const problemOfPurpose =
  (what: 'trip' | 'claim' | 'advance'): ProblemOf =>
  (typed) =>
    typed.trim() ? longerThan(200)(typed) : `Say what the ${what} is for.`;
