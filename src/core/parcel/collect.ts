/** Whether somebody wrote a name: something with at least two letters in it, in whatever writing. */
export const isNameGiven = (name: string): boolean => (name.match(/\p{L}/gu) ?? []).length >= 2;
