/** Least signs of a password (NIST SP 800-63B asks for length and against known ones, and for no kinds of signs). */
export const PASSWORD_LEAST = 10;

const plain = (text: string): string => text.normalize('NFKC').toLowerCase();

/** Whether it is one short piece again and again, or runs up or down: `abcabcabcabc`, `1234567890`. */
function isMonotonous(text: string): boolean {
  if (/^(.{1,4})\1+.{0,3}$/u.test(text)) return true;
  const signs = [...text].map((sign) => sign.codePointAt(0) ?? 0);
  const steps = signs.slice(1).map((sign, at) => sign - (signs[at] ?? 0));
  // Nine is followed by nought.
  return steps.every((step) => step === 1 || step === -9) || steps.every((step) => step === -1 || step === 9);
}

/**
 * Why a password is not taken, in words; null where it is.
 *
 * @param isCommon whether it stands on a list of those that are tried first, in small letters
 * @param own what everybody knows of its person: address, name, business
 */
export function passwordProblem(
  password: string,
  isCommon: (small: string) => boolean,
  own: readonly string[],
): string | null {
  const small = plain(password);
  if ([...password].length < PASSWORD_LEAST)
    return `A password has at least ${PASSWORD_LEAST} signs. Four or five words are good.`;
  const bare = small.replace(/[\d\W_]+$/u, '');
  if (
    isCommon(small) ||
    (bare.length >= 4 && [...small].length - [...bare].length <= 4 && isCommon(bare)) ||
    isMonotonous(small)
  )
    return 'This is one of the passwords that are tried first. Take words that do not belong together.';
  const known = own.map((one) => plain(one).trim()).filter((one) => one.length >= 4);
  if (known.some((one) => small === one || small.replace(/[\d\W_]/gu, '') === one.replace(/[\d\W_]/gu, '')))
    return 'This is your name or address, which others know too. Take words that do not belong together.';
  return null;
}
