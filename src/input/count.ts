/** A count as a plain decimal: nine figures before its point, four after it; none below nothing. */
export const COUNT = /^\d{1,9}(\.\d{1,4})?$/;
export const SAY_COUNT = { message: 'Write how many as a number, with at most four digits after its point.' };
