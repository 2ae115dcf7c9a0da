/** What cannot be read, said in a sentence of ours; any other error's message stays in the log. */
export class Unreadable extends Error {}

/** A file that was not read in time: where much else was done meanwhile, it may be another time. */
export class TooSlow extends Unreadable {}
