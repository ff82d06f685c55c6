/** A thousand labels: bought from the stand-in at zero delay, and printed as one PDF; and To pack with ten thousand sales that wait. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { PrintedLabel } from '@/core/parcel/label';
import { checkFigure } from '@/core/parcel/number';
import { labelsPdf } from '@/documents/pdf/draw';
import type { Actor } from '@/flows/door/rights';
import { buyLabels, settleLabels } from '@/flows/parcel/buy-labels';
import { putOnPaper } from '@/flows/parcel/pack';
import { packDesk, paperCosts } from '@/flows/parcel/to-pack';
import { services } from '@/outside/services';
import { GULL_POINT, postedItem, readyToPack } from '../../tests/support/parcels';
import { foundHouse, type House } from '../../tests/support/workshop';
import { report, timedEach } from './report';

const LABELS = 1_000;
const WAITING = 10_000;
const IN_ONE_JOB = 50;
const ROUNDS = 60;

const say = (line: object): void => void process.stdout.write(`${JSON.stringify(line)}\n`);

/** Writes sales that wait to be packed straight into the tables. */
async function fill(admin: pg.Client, house: House, itemId: string, count: number): Promise<void> {
  const recipient = { name: '', address: GULL_POINT, email: '', phone: '', locale: 'en-US' };
  await admin.query(
    `insert into handovers (business_id, id, customer_id, state, number, currency, charged_minor, recipient, made_at, ready_at)
     select $1, gen_random_uuid(), null, 'open', n::text, 'USD', 500,
       jsonb_set($3::jsonb, '{name}', to_jsonb('Wilhelmina Strand ' || n)), now(), now() - make_interval(secs => $2 - n)
     from generate_series(1, $2::int) as n`,
    [house.business.id, count, JSON.stringify(recipient)],
  );
  await admin.query(
    `insert into handover_lines (business_id, handover_id, line, item_id, what, quantity, handed, value_minor)
     select business_id, id, 0, $2, 'Rosin, dark', 1, 'posted', 800 from handovers where business_id = $1
     on conflict do nothing`,
    [house.business.id, itemId],
  );
  await admin.query('analyze handovers, handover_lines, parcels');
}

async function firstPage(name: string, actor: Actor): Promise<void> {
  await timedEach(5, () => packDesk(actor, ''));
  const { times, seconds } = await timedEach(ROUNDS, () => packDesk(actor, ''));
  report(name, times, seconds);
}

export async function measureParcels(adminUrl: string): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  const house = await foundHouse('Parcels');
  await readyToPack(house, {}, 2_000_000n);
  const rosin = await postedItem(house, 'Rosin, dark');
  await fill(admin, house, rosin.id, LABELS);
  for (let left = LABELS; left > 0; ) {
    const { ready } = await packDesk(house.owner, '');
    await putOnPaper(
      house.owner,
      ready.rows.map(({ id }) => id),
    );
    left -= ready.rows.length;
  }
  const { paper } = await packDesk(house.owner, '');
  const ids = paper.map(({ parcel }) => parcel.id);
  const begun = performance.now();
  await buyLabels(house.owner, null, null);
  for (let at = 0; at < ids.length; at += IN_ONE_JOB)
    await settleLabels(house.business.id, ids.slice(at, at + IN_ONE_JOB));
  const bought = (performance.now() - begun) / 1000;
  // What the carrier alone takes for as many, in the same pieces: all that is above it is ours.
  const bare = performance.now();
  const parcel = paper[0]?.parcel;
  for (let at = 0; at < LABELS; at += IN_ONE_JOB)
    await services().carrier.buy(
      house.business.id,
      'USD',
      Array.from({ length: IN_ONE_JOB }, () => ({
        key: randomUUID(),
        service: 'light',
        parcel: {
          name: parcel?.recipient.name ?? '',
          from: GULL_POINT,
          to: GULL_POINT,
          ...{ grams: 60, lengthMm: 200, widthMm: 120, heightMm: 20, insuredMinor: 0, signature: false },
          mailOn: parcel?.mailOn as never,
        },
      })),
    );
  const alone = (performance.now() - bare) / 1000;
  say({
    name: '1,000 labels bought',
    perSecond: Math.round(ids.length / bought),
    carrierAlonePerSecond: Math.round(LABELS / alone),
    ratio: Number((bought / alone).toFixed(2)),
  });

  const labels = Array.from({ length: LABELS }, (_, at): PrintedLabel => {
    const figures = String(44_000_000 + at * 7919).padStart(8, '0');
    return {
      number: `TW${figures}${checkFigure(figures)}US`,
      serviceName: 'Light',
      from: ['Parcels', '9 Weir Street, Tern Harbor'],
      to: [`Wilhelmina Strand ${at}`, '18 Pan Lane', 'Gull Point, OR 97201'],
      ...{
        weight: '2 oz',
        signature: false,
        reference: String(1000 + at),
        mailOn: '2026-11-30',
        country: 'US',
        postalCode: '97201',
      },
    };
  });
  const own = { widthMm: 100, heightMm: 150 };
  await labelsPdf(labels.slice(0, 50), { sheet: 'a6', own, begin: 0 });
  const printing = performance.now();
  const pdf = await labelsPdf(labels, { sheet: 'a6', own, begin: 0 });
  const printed = (performance.now() - printing) / 1000;
  say({
    name: '1,000 labels as one PDF',
    pagesPerSecond: Math.round(LABELS / printed),
    kilobytes: Math.round(pdf.length / 1024),
  });

  await fill(admin, house, rosin.id, WAITING);
  await firstPage('To pack, 10,000 wait: first page', house.owner);
  const { times, seconds } = await timedEach(20, () => paperCosts(house.owner));
  report('To pack: costs of the paper', times, seconds);
  const few = await foundHouse('Few parcels');
  await readyToPack(few);
  await fill(admin, few, (await postedItem(few, 'Rosin')).id, 60);
  await firstPage('To pack, 60 wait: first page', few.owner);
  await admin.end();
}
