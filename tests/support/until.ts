/** Milliseconds of real time between two looks, or while something goes on elsewhere. */
export const pause = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Looks for something outside the page, such as a mail, until it is there; counts its looks, so that a machine that stood still is no failure. */
export async function until(what: string, holds: () => Promise<boolean>, looks = 1200): Promise<void> {
  for (let looked = 0; looked < looks; looked++) {
    if (await holds()) return;
    await pause(100);
  }
  throw new Error(`Not so in time: ${what}`);
}
