/** Prints one line of results; times in milliseconds. */
export function report(
  name: string,
  times: readonly number[],
  seconds: number,
  more: Readonly<Record<string, number>> = {},
): void {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    Number((sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(3));
  const rate = Number((times.length / seconds).toFixed(1));
  const line = {
    name,
    n: times.length,
    seconds: Number(seconds.toFixed(2)),
    rate,
    p50: at(0.5),
    p95: at(0.95),
    p99: at(0.99),
    ...more,
  };
  process.stdout.write(`${JSON.stringify(line)}\n`);
}

/** Times each of so many rounds of something that is waited for. */
export async function timedEach(
  rounds: number,
  work: (round: number) => Promise<unknown>,
): Promise<{ times: number[]; seconds: number }> {
  const begun = performance.now();
  const times: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    await work(round);
    times.push(performance.now() - start);
  }
  return { times, seconds: (performance.now() - begun) / 1000 };
}
