/** Weights of the check figure of item numbers in international post (UPU standard S10). */
const WEIGHTS = [8, 6, 4, 2, 3, 5, 9, 7];

/** The check figure of eight figures (UPU S10): 11 less the weighted sum's remainder by 11; 10 counts as 0, 11 as 5. */
export function checkFigure(eight: string): number {
  const sum = WEIGHTS.reduce((total, weight, at) => total + weight * Number(eight[at] ?? 0), 0);
  const rest = 11 - (sum % 11);
  return rest === 10 ? 0 : rest === 11 ? 5 : rest;
}

/** Whether something typed or scanned is an item number of the post: two letters, eight figures with their check, the country. */
export function isItemNumber(text: string): boolean {
  const read = /^[A-Z]{2}(\d{8})(\d)[A-Z]{2}$/.exec(bareNumber(text));
  return read !== null && checkFigure(read[1] ?? '') === Number(read[2]);
}

/** A number as it is kept: without spaces, in capitals. */
export const bareNumber = (text: string): string => text.replace(/[\s-]/g, '').toUpperCase();

/** A number as it is read out: `TW 4471 0929 6 US`. */
export const spacedNumber = (number: string): string =>
  number.replace(/^([A-Z]{2})(\d{4})(\d{4})(\d)([A-Z]{2})$/, '$1 $2 $3 $4 $5');
