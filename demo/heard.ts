/** All of a recording, however long it is. */
export const HEARD = [{ start: 0, end: 10_000 }];
