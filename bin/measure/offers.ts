/** What payers of offers feel: the hosted page, the checkout, and many who want the same few pieces at once. */

import { randomUUID } from 'node:crypto';
import { GOES_AS_USUAL } from '@/core/item/item';
import { newOfferItem, type Offer, type Placement } from '@/core/offer/offer';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { publishHostedPage } from '@/flows/checkout/hosted-page';
import { beginOffer, keepOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { keepItem } from '@/flows/records/items';
import { startChromium } from '../../tests/support/chromium';
import { cardToken, type House, workDone } from '../../tests/support/workshop';
import { report } from './report';

/** An offer, placed. Returns the name in its address. */
async function placed(house: House, placement: Placement, more: Partial<Offer>): Promise<string> {
  const id = await beginOffer(house.owner, placement);
  const { placed: begun } = await offerSheet(house.owner, id);
  const offer = { ...begun.offer, title: 'Bench', ...more };
  await keepOffer(house.owner, id, 1, { name: 'Bench', offer, look: {}, sites: [] });
  if (placement === 'page') await publishHostedPage(house.owner, id);
  else await placeOffer(house.owner, id);
  return begun.publicId;
}

/** What a payer's page would send, worked out before the clock starts. */
async function attempts(called: string, standIns: string, count: number): Promise<object[]> {
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  if (!page) throw new Error('Nothing is placed there');
  const choice = { ...page.begun, name: 'Ida Marsh', email: 'ida@marsh.example' };
  const asked = { choice, quote: page.quote.token, request: '', locale: 'en-US' };
  const { chargedMinor, laterMinor } = await checkoutQuote(called, asked);
  const all: object[] = [];
  for (let at = 0; at < count; at++)
    all.push({
      ...asked,
      chargedMinor,
      laterMinor,
      checkoutKey: randomUUID(),
      attemptKey: randomUUID(),
      cardToken: await cardToken(standIns, 'corvid-good'),
      work: await workDone(called),
      passed: {},
    });
  return all;
}

/** Sends them, so many at once. Returns how long each took, and how many were paid. */
async function sent(web: string, called: string, bodies: readonly object[], atOnce: number) {
  const waiting = [...bodies];
  const times: number[] = [];
  let paid = 0;
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      for (let next = waiting.pop(); next; next = waiting.pop()) {
        const start = performance.now();
        const answer = await fetch(`${web}/api/checkout/${called}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', origin: web },
          body: JSON.stringify(next),
        });
        const said = (await answer.json()) as { value?: { state: string } };
        if (said.value?.state === 'paid') paid++;
        times.push(performance.now() - start);
      }
    }),
  );
  return { times, paid, seconds: (performance.now() - begun) / 1000 };
}

/** When the largest thing was painted, on a slow phone's processor and line. */
async function largestPaint(url: string): Promise<number[]> {
  const { browser, close } = await startChromium();
  const times: number[] = [];
  for (let round = 0; round < 7; round++) {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    await page.setViewport({ width: 390, height: 844 });
    const line = await page.createCDPSession();
    await line.send('Network.enable');
    await line.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 150,
      downloadThroughput: (1.6 * 1024 * 1024) / 8,
      uploadThroughput: (750 * 1024) / 8,
    });
    await line.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await page.goto(url, { waitUntil: 'load' });
    times.push(
      Number(
        await page.evaluate(
          `new Promise((done) => { let last = 0; new PerformanceObserver((list) => { for (const one of list.getEntries()) last = one.startTime; }).observe({ type: 'largest-contentful-paint', buffered: true }); setTimeout(() => done(last), 1500); })`,
        ),
      ),
    );
    await context.close();
  }
  await close();
  return times;
}

/** Measures the offers' side. @param load puts an address under load and prints a line; `more` goes with it */
export async function measureOffers(
  web: string,
  standIns: string,
  house: House,
  load: (name: string, url: string, connections: number) => Promise<void>,
): Promise<void> {
  const page = await placed(house, 'page', { kind: 'donation', amounts: ['25', '50'], chosen: 0 });
  const link = await placed(house, 'link', { prices: { USD: '40' } });
  await load('finished HTML from a handler, 32 at once', `${web}/bare/finished`, 32);
  await load('a hosted page, 32 at once', `${web}/p/${page}`, 32);
  await load('the checkout’s page', `${web}/c/${link}`, 16);
  for (const [name, url] of [
    ['hosted page: largest paint, slow phone', `${web}/p/${page}`],
    ['checkout: largest paint, slow phone', `${web}/c/${link}`],
  ] as const) {
    const times = await largestPaint(url);
    report(name, times, times.reduce((sum, time) => sum + time, 0) / 1000);
  }
  const warm = await attempts(link, standIns, 240);
  await sent(web, link, warm.slice(0, 40), 8);
  const { times, seconds, paid } = await sent(web, link, warm.slice(40), 8);
  report('checkouts, 8 at once', times, seconds, { paid });
  const item = await keepItem(house.owner, null, {
    code: '',
    name: 'Piece',
    description: '',
    kind: 'goods',
    unit: 'piece',
    prices: { USD: '8.00' },
    cost: '',
    taxClass: 'standard',
    onHand: '50',
    lowAt: null,
    pictureId: null,
    going: GOES_AS_USUAL,
    options: [],
  });
  const few = await placed(house, 'button', {
    kind: 'items',
    items: [newOfferItem(randomUUID(), { name: 'Piece', itemId: item.id, prices: { USD: '8' } })],
  });
  const crowd = await sent(web, few, await attempts(few, standIns, 200), 200);
  report('200 payers at once for 50 pieces', crowd.times, crowd.seconds, { paid: crowd.paid });
}
