/** What cannot be read, said in a sentence of ours; any other error's message stays in the log. */
export class Unreadable extends Error {}
