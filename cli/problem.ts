/** Something a person can mend: its message, in one line, says what is wrong and what to do. */
export class Problem extends Error {}
