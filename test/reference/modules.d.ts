interface Array<T> {
  /** Added by largest-remainder-round: whole numbers in proportion that add up to the total. */
  spread(total: number): T[];
}
declare module 'largest-remainder-round';
declare module 'mt940js';
declare module 'ofx-js';
declare module 'munkres-js' {
  /** Rows with their columns such that the costs together are least. */
  export default function munkres(cost: number[][]): [row: number, column: number][];
}
