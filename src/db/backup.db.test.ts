/** A backup of a living business, restored on the same server under another name: all of it there, and working. */
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, inject, test } from 'vitest';
import { todayView } from '@/flows/day/today';
import { checkBooks } from '@/flows/house/check-books';
import { passwordHash } from '@/flows/house/password';
import { actorOf } from '@/flows/house/sign-in';
import { takePayment } from '@/flows/payment/take-payment';
import { backUp } from '../../bin/keep/backup';
import { booksTroubles, restore, restoredTroubles } from '../../bin/keep/restore';
import { asSuperuser } from '../../tests/support/database';
import { paidOrder, placedOffer } from '../../tests/support/offers';
import { planTerms, runningPlan } from '../../tests/support/plans';
import { signIn } from '../../tests/support/signed-in';
import { cardToken, foundHouse, sentInvoice, sharedWorkshop } from '../../tests/support/workshop';
import { closePool } from './pool';
import { ticketSecret } from './ticket';

const workshop = await sharedWorkshop();
const house = await foundHouse('Kept', await passwordHash('a plane and a saw'));
const server = inject('admin');
const database = new URL(workshop.admin).pathname.slice(1);
const folder = mkdtempSync(join(tmpdir(), 'dahlia-backup-'));
const file = join(folder, 'one.backup');
const anew = `${database}_again`;
const lost = `${database}_lost`;
afterAll(async () => {
  await closePool();
  for (const one of [anew, lost]) await asSuperuser(server, `drop database if exists "${one}" with (force)`);
});

test('what was kept is all there: rows, policies, rights, books; and people go on where they were', async () => {
  const paid = await sentInvoice(house);
  const open = await sentInvoice(house);
  const token = () => cardToken(workshop.standIns, 'corvid-good');
  const pay = async (link: string) =>
    takePayment(link, { attemptKey: crypto.randomUUID(), cardToken: await token(), amountMinor: 11_000n }, 'a');
  await pay(paid.link);
  const offer = await placedOffer(house, { prices: { USD: '40' } });
  await paidOrder(workshop, offer.called);
  await runningPlan(house, workshop.standIns, planTerms(house, '2040-01-01'));
  const email = `owner-${house.business.id.slice(0, 8)}@sallow.example`;
  const session = await signIn(email, 'a plane and a saw', 'a');

  const manifest = await backUp(server, database, file);
  expect(manifest.policies).toBeGreaterThan(50);
  await expect(backUp(server, database, file)).rejects.toThrow('exists');
  // What is written afterwards is not in it.
  await sentInvoice(house);

  const { urls } = await restore(server, anew, file, ticketSecret());
  expect(await restoredTroubles(server, anew, manifest)).toEqual([]);
  await closePool();
  expect(await booksTroubles(urls)).toEqual([]);
  expect(await checkBooks()).toEqual([]);
  expect(await actorOf(session.token)).toEqual({ ...house.owner, provedSeconds: expect.any(Number) });
  await signIn(email, 'a plane and a saw', 'b');
  await pay(open.link);
  expect((await todayView(house.owner)).cameIn.length).toBe(3);
  await expect(restore(server, anew, file, 'x')).rejects.toThrow('exists');
});

test('a restore that lost something is found out', async () => {
  const { manifest } = await restore(server, lost, file, ticketSecret());
  const owner = server.replace(/\/[^/]*$/, `/${lost}`);
  await asSuperuser(owner, 'drop policy own_business on customers');
  await asSuperuser(owner, 'delete from timeline where id in (select id from timeline limit 1)');
  const troubles = await restoredTroubles(server, lost, manifest);
  expect(troubles).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/policies were kept/),
      expect.stringMatching(/^public\.timeline: /),
      'a table of businesses without its wall: customers',
    ]),
  );
});

test('a damaged file, or one without its manifest, is not restored', async () => {
  const bytes = readFileSync(file);
  const middle = Math.floor(bytes.length / 2);
  bytes[middle] = (bytes[middle] ?? 0) ^ 1;
  writeFileSync(file, bytes);
  await expect(restore(server, `${anew}2`, file, 'x')).rejects.toThrow('damaged');
  await expect(restore(server, `${anew}2`, join(folder, 'none'), 'x')).rejects.toThrow('needed');
  expect(existsSync(join(folder, 'one.backup.json'))).toBe(true);
});
