/** A name as it is compared: small letters without marks, in words; what firms are called by law is left out. */
export function nameWords(name: string): string[] {
  return name
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '' && !LEGAL.has(word));
}

const LEGAL = new Set([
  'ltd',
  'llc',
  'inc',
  'gmbh',
  'ag',
  'kg',
  'co',
  'corp',
  'sa',
  'sarl',
  'bv',
  'plc',
  'mr',
  'mrs',
  'ms',
  'dr',
  'and',
  'und',
  'the',
  'of',
]);

/** Whether one word can be short for another: the same first letter, and its letters in order in the other. */
function isShortFor(short: string, long: string): boolean {
  if (short === long) return true;
  if (short.length < 2 || short.length >= long.length || short[0] !== long[0]) return false;
  let at = 0;
  for (const letter of long) if (letter === short[at]) at += 1;
  return at === short.length;
}

/**
 * How like a name on a statement is to a customer's: banks cut names, write them in capitals, and change the order.
 *
 * @returns `equal` for the same words in any order, `like` where most of the shorter one's words are those of the other or short for them
 */
export function nameLikeness(given: readonly string[], known: readonly string[]): 'equal' | 'like' | 'no' {
  if (given.length === 0 || known.length === 0) return 'no';
  if (given.length === known.length && [...given].sort().join(' ') === [...known].sort().join(' ')) return 'equal';
  const [few, many] = given.length <= known.length ? [given, known] : [known, given];
  const left = [...many];
  let whole = 0;
  let short = 0;
  let initials = 0;
  for (const word of few) {
    const at = left.indexOf(word);
    const near = at >= 0 ? at : left.findIndex((one) => isShortFor(word, one) || isShortFor(one, word));
    const initial =
      near < 0 ? left.findIndex((one) => (word.length === 1 || one.length === 1) && one[0] === word[0]) : -1;
    if (near < 0 && initial < 0) continue;
    if (near < 0) initials += 1;
    else if (at >= 0 && word.length > 2) whole += 1;
    else short += 1;
    left.splice(near < 0 ? initial : near, 1);
  }
  // A letter alone says something beside a whole word only.
  const fits = whole + short + (whole > 0 ? initials : 0);
  if (fits >= 2) return fits * 3 >= few.length * 2 ? 'like' : 'no';
  return whole === 1 && few.length === 1 && (few[0]?.length ?? 0) > 4 ? 'like' : 'no';
}
