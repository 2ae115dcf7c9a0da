/** One thing wrong with a document, at the path of the offending value. */
export interface Problem {
  path: (string | number)[];
  message: string;
}
/** Notes a problem. */
export type Report = (path: (string | number)[], message: string) => void;
