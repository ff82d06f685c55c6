const MOST_PASSED = 12;
const LONGEST = 200;

/**
 * What an address passes through to the payment: campaign, order number and the like, everything that begins with `pass_`.
 *
 * @param asked what the address says, by name @returns by what stands behind `pass_`; few, and short
 */
export const passedThrough = (asked: Readonly<Record<string, string | string[] | undefined>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(asked)
      .flatMap(([name, value]) =>
        /^pass_[\w-]{1,40}$/.test(name) && typeof value === 'string' ? [[name.slice(5), value.slice(0, LONGEST)]] : [],
      )
      .slice(0, MOST_PASSED),
  );
