/** Something in a statement that cannot be; its message says what and where, for the person who gave the file. */
export class StatementFault extends Error {}
