/** Does something for each, with at most so many under way at once; results in the order of what was given. */
export async function atMost<One, Result>(
  most: number,
  all: readonly One[],
  work: (one: One) => Promise<Result>,
): Promise<Result[]> {
  const results: Result[] = [];
  let next = 0;
  const lane = async (): Promise<void> => {
    for (let at = next++; at < all.length; at = next++) results[at] = await work(all[at] as One);
  };
  await Promise.all(Array.from({ length: Math.min(most, all.length) }, lane));
  return results;
}
