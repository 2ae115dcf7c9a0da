interface Array<T> {
  /** Added by largest-remainder-round: whole numbers in proportion that add up to the total. */
  spread(total: number): T[];
}
declare module 'largest-remainder-round';
declare module 'mt940js';
declare module 'ofx-js';
