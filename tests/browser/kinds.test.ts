/** Every kind of offer through every placement, begun on a website of another origin and paid to the end. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Frame, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { MOST_FILE_BYTES } from '@/core/file/size';
import { newOfferItem, type Offer, PLACEMENTS, type Placement } from '@/core/offer/offer';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { publishHostedPage } from '@/flows/checkout/hosted-page';
import { programContext } from '@/flows/door/program';
import { beginOffer, keepOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import { expectAccessible, fillCard, follow, openPage, press, type, untilShown, visit } from '../support/person';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House } from '../support/workshop';

let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse();
  ({ browser, close: closeBrowser } = await startChromium());
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

type Kind = {
  /** The offer, with the sum that is paid in the end: 10 percent tax on what is sold, none on what is given. */
  readonly offer: Partial<Offer>;
  readonly pays: string;
  /** What is chosen at the checkout; on a hosted page what can be chosen there is chosen there. */
  readonly choose: (at: Page | Frame) => Promise<void>;
  readonly onPage: (page: Page) => Promise<void>;
};
const bow = { id: randomUUID(), name: 'Bow, three quarters', prices: { USD: '80' }, optionId: null };
const KINDS: Readonly<Record<Offer['kind'], Kind>> = {
  sum: { offer: { prices: { USD: '40' } }, pays: '44.00', choose: async () => {}, onPage: async () => {} },
  items: {
    offer: { items: [newOfferItem(randomUUID(), { name: 'Bow', prices: { USD: '75' }, options: [bow], most: 5 })] },
    pays: '176.00',
    choose: async (at) => {
      await (await at.waitForSelector('select[aria-label="Which one: Bow"]'))?.select(bow.id);
      await press(at, '+ Bow', 'button');
    },
    onPage: async (page) => {
      await page.select('select[name^="o_"]', bow.id);
      await page.select('select[name^="q_"]', '2');
    },
  },
  open: {
    offer: { least: { USD: '5' }, most: { USD: '500' } },
    pays: '27.50',
    choose: (at) => type(at, 'Amount, USD', '27.50'),
    onPage: (page) => type(page, 'Another amount', '27.50'),
  },
  donation: {
    offer: { amounts: ['25', '50'], chosen: 0, purposes: ['Strings', 'Bows'] },
    pays: '50.00',
    choose: async (at) => {
      await press(at, '$50.00', 'button');
      await press(at, 'Bows', 'radio');
    },
    onPage: async (page) => {
      await page.click('input[name=amount][value="50"]');
      await page.click('input[name=purpose][value="Bows"]');
    },
  },
};

/** An offer of this kind, placed; it asks for a drawing where a button sells items. */
async function placed(placement: Placement, kind: Offer['kind'], withFile: boolean): Promise<string> {
  const id = await beginOffer(house.owner, placement);
  const begun = (await offerSheet(house.owner, id)).placed;
  const title = `${kind} by ${placement}`;
  const drawing = {
    kind: 'file',
    label: 'Your drawing',
    help: '',
    required: true,
    choices: [],
    onReceipt: true,
  } as const;
  const fields = withFile ? [{ id: randomUUID(), ...drawing }] : [];
  const offer = { ...begun.offer, items: [], ...KINDS[kind].offer, kind, title, fields };
  await keepOffer(house.owner, id, 1, { name: title, offer, look: {}, sites: [stack.standIns] });
  if (placement === 'page') await publishHostedPage(house.owner, id);
  else await placeOffer(house.owner, id);
  return begun.publicId;
}

/** What the other website shows of it. */
const shownThere = (placement: Placement, called: string): string =>
  ({
    link: `<p><a href="${stack.web}/c/${called}">To the checkout</a></p>`,
    page: `<p><a href="${stack.web}/p/${called}">To the page</a></p>`,
    button: `<script src="${stack.web}/checkout.js" data-offer="${called}" async></script>`,
  })[placement];

/** Follows what stands on the other website. Returns where the checkout is then: the page itself, or a frame over the other one. */
async function checkoutFrom(shop: Page, placement: Placement, kind: Kind): Promise<Page | Frame> {
  if (placement === 'button') {
    await (await shop.waitForSelector('#placed a img'))?.click();
    const frame = await (await shop.waitForSelector('dialog iframe'))?.contentFrame();
    if (!frame) throw new Error('No checkout over the page');
    return frame;
  }
  await follow(shop, '#placed a');
  if (placement === 'page') {
    await kind.onPage(shop);
    await follow(shop, 'form.offer button');
  }
  return shop;
}

const cases = PLACEMENTS.flatMap((placement) =>
  (['sum', 'items', 'open', 'donation'] as const).map((kind) => ({ placement, kind })),
);

test.each(cases)('$kind by $placement', async ({ placement, kind }) => {
  const withFile = placement === 'button' && kind === 'items';
  const called = await placed(placement, kind, withFile);
  const { page: shop, errors, close } = await openPage(browser);
  await visit(shop, `${stack.standIns}/shop`);
  await shop.$eval(
    'textarea',
    (area, text) => ((area as HTMLTextAreaElement).value = text),
    shownThere(placement, called),
  );
  await Promise.all([shop.waitForNavigation(), press(shop, 'Put it on the page', 'button')]);
  const of = KINDS[kind];
  const at = await checkoutFrom(shop, placement, of);
  await untilShown(at, `${kind} by ${placement}`);
  if (placement !== 'page') await of.choose(at);
  await untilShown(at, `Pay $${of.pays}`);
  const email = `${kind}-${placement}@reed.example`;
  await type(at, 'Name', 'Otto Reed');
  await type(at, 'E-mail address', email);
  if (withFile) {
    const path = join(mkdtempSync(join(tmpdir(), 'dahlia-drawing-')), 'scroll of a bow.pdf');
    writeFileSync(path, '%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n');
    await ((await at.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(path);
    await untilShown(at, 'scroll of a bow.pdf');
  }
  await fillCard(at, 'corvid-good');
  await press(at, `Pay $${of.pays}`, 'button');
  const found = () =>
    asSuperuser<{ amount_minor: string; channel: string; state: string }>(
      stack.admin,
      `select amount_minor, channel, payments.state from payments join orders on orders.id = order_id where payer_email = $1`,
      [email],
    );
  await until(`the payment of ${email}`, async () => (await found()).some(({ state }) => state === 'paid'));
  expect(await found()).toEqual([{ amount_minor: of.pays.replace('.', ''), channel: placement, state: 'paid' }]);
  if (placement === 'button') {
    const over = async () => (await shop.$('dialog iframe'))?.contentFrame();
    await until(
      'the thanks over the other page',
      async () =>
        (await (await over())?.evaluate(() => document.body?.innerText ?? '').catch(() => ''))?.includes(
          'reed.example',
        ) ?? false,
    );
  } else await untilShown(shop, email);
  expect(errors).toEqual([]);
  await close();
});

test('a file that is too large is told of in the payer’s language, on the phone; the next one is taken', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-drawing-'));
  const [large, small] = [join(folder, 'Zeichnung groß.pdf'), join(folder, 'Zeichnung klein.pdf')];
  writeFileSync(large, Buffer.alloc(MOST_FILE_BYTES + 1, '%PDF-1.4\n'));
  writeFileSync(small, '%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n');
  const { page, errors, close } = await openPage(browser, { width: 390, height: 844 });
  await visit(page, `${stack.web}/c/${await placed('link', 'sum', true)}?lang=de`);
  const field = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await field.uploadFile(large);
  await untilShown(page, 'größer als 10 MB');
  await expectAccessible(page, 'a refused file');
  await field.uploadFile(small);
  await untilShown(page, 'Die Datei ist bei uns. Zeichnung klein.pdf');
  expect(await page.evaluate(() => document.body.innerText.includes('größer als'))).toBe(false);
  expect(errors).toEqual([]);
  await close();
});

test('the file stands at the order that asked for it, and the books agree', async () => {
  const rows = await asSuperuser<{ name: string }>(
    stack.admin,
    `select files.name from orders join files on orders.choice::text like '%' || files.id::text || '%' where payer_email = 'items-button@reed.example'`,
  );
  expect(rows.map(({ name }) => name)).toEqual(['scroll of a bow.pdf']);
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
});
