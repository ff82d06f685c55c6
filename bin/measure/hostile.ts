import { spawn } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { checkoutPage } from '@/flows/checkout/checkout-page';
import { fuzz } from '../../tests/support/fuzz/fuzz';
import { attackedHouse } from '../../tests/support/fuzz/house';
import { placedOffer } from '../../tests/support/offers';
import { type House, sentInvoice } from '../../tests/support/workshop';
import { report } from './report';

const HONEST_MS = 12_000;
/** So many honest people, each with a short pause between two requests. */
const HONEST = 4;

/** Honest requests for a while: an invoice's page and a quote of an offer, by turns; how long each took. */
async function honest(web: string, link: string, quote: { path: string; body: string }): Promise<number[]> {
  const times: number[] = [];
  const until = performance.now() + HONEST_MS;
  const one = async (at: number, person: number): Promise<void> => {
    const headers = { 'x-forwarded-for': `198.51.100.${person + 1}` };
    const start = performance.now();
    const answer =
      at % 2 === 0
        ? await fetch(`${web}/i/${link}`, { headers })
        : await fetch(`${web}${quote.path}`, {
            method: 'POST',
            headers: { ...headers, 'content-type': 'application/json', origin: web },
            body: quote.body,
          });
    await answer.text();
    if (!answer.ok) throw new Error(`An honest request was answered with ${answer.status}`);
    times.push(performance.now() - start);
  };
  await Promise.all(
    Array.from({ length: HONEST }, async (_, person) => {
      for (let at = person; performance.now() < until; at++) {
        await one(at, person);
        await pause(60);
      }
    }),
  );
  return times;
}

const p95 = (times: readonly number[]): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0;

/**
 * Honest requests alone, and beside hostile ones: so many a second from a program of its own, of each kind that once stopped everybody
 * (large bodies of unknown fields, deep nesting, broken addresses, guessed passwords). The goal: the honest ones' p95 at most doubles.
 */
export async function measureHostile(web: string, house: House): Promise<void> {
  const { link } = await sentInvoice(house);
  const { called } = await placedOffer(house, { prices: { USD: '40' } });
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  if (!page) throw new Error('Nothing is placed there');
  const body = JSON.stringify({ choice: page.begun, quote: page.quote.token, request: '', locale: 'en-US' });
  const quote = { path: `/api/checkout/${called}/quote`, body };
  await honest(web, link, quote);
  for (const [rate, from] of [
    [20, 'one'],
    [100, 'one'],
    [20, 'many'],
    [100, 'many'],
  ] as const) {
    const name = `${rate} hostile a second from ${from === 'one' ? 'one address' : 'as many addresses'}`;
    const before = await honest(web, link, quote);
    report(`honest requests alone, before ${name}`, before, HONEST_MS / 1000);
    const attacker = spawn(
      process.execPath,
      ['--import', 'tsx', 'bin/measure/attacker.ts', web, `${web}${quote.path}`, String(rate), from],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    let said = '';
    attacker.stdout.on('data', (piece) => {
      said += piece;
    });
    await pause(1500);
    const beside = await honest(web, link, quote);
    attacker.kill('SIGTERM');
    await new Promise((resolve) => attacker.once('exit', resolve));
    const sent = JSON.parse(said || '{}') as Record<string, number>;
    report(`honest requests beside ${name}`, beside, HONEST_MS / 1000, {
      ratio: Number((p95(beside) / p95(before)).toFixed(2)),
      ...sent,
    });
  }
}

/** Two hundred mutations of every input at every address; what should not have been answered so. */
export async function measureFuzz(web: string, admin: string, standIns: string, seed: number): Promise<void> {
  const attacked = await attackedHouse(web, {
    admin,
    standIns,
    smtpPort: 0,
    stopStandIns: async () => {},
    close: async () => {},
  });
  const begun = performance.now();
  const { doors, sent, found } = await fuzz(attacked, 200, seed);
  const seconds = Number(((performance.now() - begun) / 1000).toFixed(1));
  process.stdout.write(`${JSON.stringify({ name: 'fuzz', seed, doors, sent, seconds, found: found.length })}\n`);
  for (const one of found) process.stdout.write(`${JSON.stringify(one)}\n`);
  if (found.length > 0) process.exitCode = 1;
}
