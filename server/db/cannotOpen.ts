/** What stops a start, in words for the console: what is wrong, with which file, and what helps. */
export class CannotOpen extends Error {}

/** The database was changed by a newer Trough in a way this one does not know. */
export class TooNew extends CannotOpen {}
