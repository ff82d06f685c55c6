/** The demo's payment links and buttons, a discount code, partners, rates, and what came in through them. */
import { randomUUID } from 'node:crypto';
import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { calendarDate } from '@/core/dates/calendar-date';
import type { Choice } from '@/core/offer/choice';
import { newOfferItem, type Offer, type Placement } from '@/core/offer/offer';
import { newBlock } from '@/core/page/page';
import { itemRows } from '@/db/items';
import type { Actor } from '@/db/people';
import { keepRates } from '@/db/rates';
import { inBusiness, readBusiness } from '@/db/transaction';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { keepPage, publishHostedPage } from '@/flows/checkout/hosted-page';
import { takeOrder } from '@/flows/checkout/take-order';
import { programContext } from '@/flows/door/program';
import { storeCode } from '@/flows/offer/codes';
import { beginOffer, keepOffer, offerSheet, placeOffer, setAddress, setOfferState } from '@/flows/offer/offers';
import { sendRequest } from '@/flows/offer/requests';
import { checkoutWork } from '@/flows/payment/card-testing';
import { refundPayment } from '@/flows/payment/refund-payment';
import { storePartner } from '@/flows/records/partners';
import { lookAfterVouchers } from '@/flows/voucher/due-vouchers';
import { voucherList } from '@/flows/voucher/vouchers';
import { FUND } from './thistlewood';

/** What the loader lends: who does it, a card's token, and the post. */
export type Stage = {
  readonly actor: Actor;
  readonly token: (card: string) => Promise<string>;
  /** The origin of the sample website. */
  readonly website: string;
  readonly mail: () => Promise<void>;
  /** The moment of the history. */
  readonly now: () => Date;
};

const PAYERS: readonly [name: string, email: string][] = [
  ['Wilhelmina Farrow', 'wilhelmina@farrow.example'],
  ['Casimir Holloway', 'casimir.holloway@post.example'],
  ['Benedikt Sommerauer', 'benedikt@sommerauer.example'],
  ['Orsolya Penrith', 'orsolya@penrith.example'],
  ['Thaddeus Quillfeather', 'thaddeus@quillfeather.example'],
  ['Mireille Castagnard', 'mireille@castagnard.example'],
];

const GIFT_PAGE = {
  blocks: [
    newBlock(randomUUID(), 'logo'),
    newBlock(randomUUID(), 'heading', { text: 'Lend a child an instrument' }),
    newBlock(randomUUID(), 'text', {
      text: '<p>The Small Hands fund lends violins and cellos to children who would not have one. Every instrument goes over our bench first, and comes back to it when it is outgrown.</p><p><strong>Thirty dollars keep a violin in strings for a year.</strong></p>',
    }),
    newBlock(randomUUID(), 'goal', { text: '2400' }),
    newBlock(randomUUID(), 'offer', { text: 'Give' }),
    newBlock(randomUUID(), 'questions', {
      questions: [
        {
          ask: 'What becomes of what I give?',
          answer: 'It buys strings and bows, and pays for repairs at cost. Nothing goes to us.',
        },
        {
          ask: 'Do I get a letter for the tax office?',
          answer: 'Yes: the receipt comes at once, and in January a letter over the whole year.',
        },
      ],
    }),
    newBlock(randomUUID(), 'contact'),
  ],
  theme: { background: '#fdf8ef', text: '#2a2030', accent: '#2c6b4c' },
};

async function offer(
  { actor }: Stage,
  placement: Placement,
  [name, address]: readonly [name: string, address: string],
  more: Partial<Offer>,
  extra: { look?: Record<string, unknown>; sites?: string[]; place?: boolean } = {},
): Promise<{ id: string; called: string }> {
  const id = await beginOffer(actor, placement);
  const { placed } = await offerSheet(actor, id);
  const whole = { ...placed.offer, title: name, ...more };
  await keepOffer(actor, id, 1, { name, offer: whole, look: extra.look ?? {}, sites: extra.sites ?? [] });
  if (extra.place === false) return { id, called: placed.publicId };
  if (placement === 'page') {
    if (extra.look) await keepPage(actor, id, extra.look);
    await publishHostedPage(actor, id);
  } else await placeOffer(actor, id);
  if (address) await setAddress(actor, id, address);
  return { id, called: address || placed.publicId };
}

async function buy(
  stage: Stage,
  called: string,
  who: number,
  choice: Partial<Choice>,
  [card, lang = 'en-US']: readonly [card: string, lang?: string] = ['corvid-good'],
): Promise<void> {
  const page = await checkoutPage(called, {
    acceptLanguage: lang,
    lang: '',
    currency: choice.currency ?? '',
    request: '',
  });
  if (!page) throw new Error(`Nothing is placed as ${called}`);
  const [name, email] = PAYERS[who % PAYERS.length] ?? ['', ''];
  const asked = {
    choice: { ...page.begun, name, email, ...choice },
    quote: page.quote.token,
    request: '',
    locale: page.locale,
  };
  const quote = await checkoutQuote(called, asked);
  const challenge = await checkoutWork(called);
  const solution = await solveChallenge({ challenge, deriveKey });
  if (!solution) throw new Error('The work was not done');
  await takeOrder(
    called,
    {
      ...asked,
      quote: quote.token,
      chargedMinor: BigInt(quote.chargedMinor),
      laterMinor: quote.laterMinor,
      checkoutKey: randomUUID(),
      attemptKey: randomUUID(),
      cardToken: card && (await stage.token(card)),
      passed: {},
      work: { challenge, solution },
    },
    randomUUID(),
  );
  await stage.mail();
}

/** Makes what the demo offers. Returns what the payers need to find their way. */
async function place(stage: Stage) {
  const { actor } = stage;
  const table = {
    on: calendarDate('2026-01-02'),
    perEuro: { USD: '1.0824', GBP: '0.8531', CHF: '0.9402', JPY: '163.15' },
  };
  await inBusiness(programContext(actor.businessId), (tx) => keepRates(tx, table, 'invented rates of the demo'));
  const beatrix = await storePartner(actor, null, {
    name: 'Beatrix Amsel',
    email: 'beatrix@amsel.example',
  });
  const linus = await storePartner(actor, null, {
    name: 'Linus Oakhanger',
    email: 'linus@oakhanger.example',
  });
  const fund = await storePartner(actor, null, {
    name: 'Small Hands Instrument Fund',
    email: 'fund@smallhands.example',
  });
  await storeCode(actor, null, {
    code: 'AUTUMN',
    note: 'For the newsletter of October',
    percent: '15',
    amountMinor: null,
    currency: 'USD',
    from: '',
    to: '',
    leastMinor: 2000n,
    mostUses: 50,
    mostEach: 1,
    itemIds: [],
  });

  const deposit = await offer(stage, 'link', ['Deposit for a bespoke violin', 'bespoke-deposit'], {
    prices: { USD: '400.00' },
    currencies: ['EUR', 'GBP'],
    taxClass: 'zero',
    description:
      'Reserves your place at the bench. It counts towards the instrument, and is given back until the wood is cut.',
    fields: [
      {
        id: randomUUID(),
        kind: 'choice',
        label: 'Which size?',
        help: '',
        required: true,
        choices: ['full', '7/8', '3/4'],
        onReceipt: true,
      },
    ],
  });
  const lessons = await offer(stage, 'link', ['Five lessons with Beatrix', 'five-lessons'], {
    prices: { USD: '220.00' },
    taxClass: 'zero',
    description: 'Five lessons of 50 minutes, to be taken within half a year.',
    split: {
      partners: [
        { partnerId: beatrix.id, percent: '60' },
        { partnerId: linus.id, percent: '20' },
      ],
      keep: '',
      feeFrom: 'all',
    },
    codes: true,
  });
  const open = await offer(stage, 'link', ['Pay for a repair', 'repair'], {
    kind: 'open',
    least: { USD: '5' },
    message: true,
  });
  await offer(stage, 'link', ['Summer string camp', ''], { prices: { USD: '180.00' } }, { place: false });

  const items = await readBusiness(programContext(actor.businessId), (db) => itemRows(db, '', 40));
  const strings = items.find(({ code }) => code === 'VLN');
  const rosin = items.find(({ code }) => code === 'ROS-D');
  const shelf = [strings, rosin].flatMap((item) =>
    item
      ? [
          newOfferItem(randomUUID(), {
            name: item.name,
            note: item.description,
            itemId: item.id,
            prices: { ...item.prices },
            taxClass: item.taxClass,
            least: 0,
            most: 6,
            options: item.options.map((option) => ({
              id: randomUUID(),
              name: option.name,
              prices: { ...option.prices },
              optionId: option.id,
            })),
          }),
        ]
      : [],
  );
  const shop = await offer(
    stage,
    'button',
    ['Strings and rosin by post', ''],
    {
      kind: 'items',
      items: shelf,
      currencies: ['EUR'],
      codes: true,
      phone: 'may',
      delivery: {
        zones: [
          { id: randomUUID(), name: 'At home', countries: ['US'], prices: { USD: '6.50' } },
          { id: randomUUID(), name: 'Abroad', countries: [], prices: { USD: '19.00', EUR: '17.50' } },
        ],
        freeFrom: { USD: '120' },
      },
    },
    { sites: [stage.website], look: { wording: 'order', schemes: true } },
  );
  const gift = await offer(
    stage,
    'page',
    ['Lend a child an instrument', 'lend-a-violin'],
    {
      tradingNameId: FUND,
      kind: 'donation',
      split: { partners: [{ partnerId: fund.id, percent: '90' }], keep: '', feeFrom: 'business', of: 'net' },
      amounts: ['15', '30', '60', '120'],
      chosen: 1,
      purposes: ['Where it is needed most', 'Violins for beginners', 'Strings and repairs'],
      description:
        'The Small Hands fund lends instruments to children who would not have one. Thirty dollars keep a violin in strings for a year.',
      thanks: 'Thank you. In spring you get a letter with a picture of who plays on it now.',
    },
    { look: GIFT_PAGE },
  );
  await offer(stage, 'page', ['Workshop concert', ''], {
    kind: 'items',
    items: [
      newOfferItem(randomUUID(), {
        name: 'Seat at the concert',
        note: 'In the workshop, among the wood.',
        prices: { USD: '18.00' },
        taxClass: 'zero',
        most: 6,
      }),
    ],
    mostPayments: 40,
  });

  const size = (await offerSheet(actor, deposit.id)).placed.offer.fields[0]?.id ?? '';
  const seat = { lines: ['4 Elm Court'], city: 'Rook Harbor', region: 'US-WA', postalCode: '98199', country: 'US' };
  const one = (await offerSheet(actor, shop.id)).placed.offer.items;
  const of = (at0: number, quantity: string, option = '') => ({ id: one[at0]?.id ?? '', quantity, optionId: option });
  const light = one[0]?.options[0]?.id ?? '';
  const vouchers = await offer(stage, 'link', ['A gift voucher of our workshop', 'voucher'], {
    kind: 'open',
    description: 'For strings, a setting, a bow’s new hair, or a part of an instrument.',
    amounts: ['25', '50', '100'],
    chosen: 1,
    least: { USD: '10' },
    voucher: true,
  });
  return { deposit, lessons, open, shop, gift, vouchers, size, seat, of, light };
}

type Placed = Awaited<ReturnType<typeof place>>;

/** The offers' part of the demo, as what happens how many days ago at which hour: made some weeks ago, paid since. */
export function offerPlans(stage: Stage): [daysAgo: number, hour: number, work: () => Promise<void>][] {
  const { actor } = stage;
  let made: Placed | null = null;
  const once = (work: (placed: Placed) => Promise<void>) => async () => {
    made ??= await place(stage);
    await work(made);
  };
  return [
    [40, 9, once(async () => undefined)],
    [
      33,
      11,
      once(async (placed) => {
        await buy(stage, placed.lessons.called, 0, {});
      }),
    ],
    [
      28,
      15,
      once(async (placed) => {
        await buy(stage, placed.gift.called, 1, { amount: '60', purpose: 'Violins for beginners' }, ['lumen-good']);
      }),
    ],
    [
      21,
      10,
      once(async (placed) => {
        await buy(stage, placed.deposit.called, 2, { answers: { [placed.size]: '7/8' }, currency: 'EUR' }, [
          'corvid-good',
          'de-AT',
        ]);
      }),
    ],
    [
      17,
      18,
      once(async (placed) => {
        await buy(stage, placed.shop.called, 3, {
          items: [placed.of(0, '2', placed.light), placed.of(1, '1')],
          delivery: placed.seat,
          code: 'autumn',
        });
      }),
    ],
    [
      8,
      14,
      once(async (placed) => {
        await buy(stage, placed.lessons.called, 4, {});
        await buy(stage, placed.gift.called, 5, { amount: '120', purpose: 'Strings and repairs' }, ['lumen-good']);
      }),
    ],
    [
      12,
      9,
      once(async (placed) => {
        await buy(stage, placed.gift.called, 4, { amount: '30', purpose: 'Where it is needed most' });
      }),
    ],
    [
      9,
      14,
      once(async (placed) => {
        await buy(stage, placed.lessons.called, 5, {}, ['corvid-poor']);
      }),
    ],
    [
      6,
      20,
      once(async (placed) => {
        await buy(
          stage,
          placed.shop.called,
          5,
          {
            items: [placed.of(0, '0'), placed.of(1, '3')],
            delivery: { ...placed.seat, country: 'FR', region: '', postalCode: '75011', city: 'Paris' },
          },
          ['lumen-good', 'fr-FR'],
        );
      }),
    ],
    [
      14,
      12,
      once(async (placed) => {
        const gift = {
          toName: 'Lambert Oyelaran',
          toEmail: 'lambert@oyelaran.example',
          on: '',
          message: 'For your sixtieth: so that the old bow gets its new hair at last. We are proud of you!',
        };
        await buy(stage, placed.vouchers.called, 3, { amount: '100', gift });
        await lookAfterVouchers(programContext(actor.businessId, stage.now()));
        await stage.mail();
      }),
    ],
    [
      9,
      15,
      once(async (placed) => {
        const { rows } = await voucherList(actor, { words: 'Lambert', after: '' });
        await buy(
          stage,
          placed.open.called,
          4,
          {
            amount: '54.80',
            name: 'Lambert Oyelaran',
            email: 'lambert@oyelaran.example',
            voucher: rows[0]?.code ?? '',
          },
          [''],
        );
      }),
    ],
    [
      5,
      18,
      once(async (placed) => {
        const christmas = `${stage.now().getUTCFullYear()}-12-24`;
        const gift = {
          toName: 'Solveig',
          toEmail: 'solveig@castagnard.example',
          on: christmas,
          message: 'Joyeux Noël !',
        };
        await buy(stage, placed.vouchers.called, 5, { amount: '50', gift }, ['lumen-good', 'fr-FR']);
      }),
    ],
    [
      4,
      12,
      once(async (placed) => {
        await buy(stage, placed.lessons.called, 4, { code: 'AUTUMN' });
      }),
    ],
    [
      2,
      16,
      once(async (placed) => {
        await buy(stage, placed.gift.called, 0, { amount: '120', purpose: 'Strings and repairs' });
        const { orders } = await offerSheet(actor, placed.shop.id);
        const last = orders.find(({ state }) => state === 'paid');
        if (last?.paymentId)
          await refundPayment(actor, last.paymentId, {
            wish: { by: 'sum', amountMinor: 980n },
            method: 'card',
            reference: '',
            owedAgain: false,
            reason: 'One block arrived broken',
            aside: {},
            requestKey: randomUUID(),
          });
      }),
    ],
    [
      1,
      11,
      once(async (placed) => {
        await sendRequest(actor, placed.open.id, {
          toName: 'Casimir Holloway',
          toAddress: 'casimir.holloway@post.example',
          filled: { name: 'Casimir Holloway', email: 'casimir.holloway@post.example', amount: '64.80' },
          locked: true,
          way: 'mail',
          words: 'The pegs turn again. You can pay here before you fetch it.',
        });
        await stage.mail();
        const camp = await offer(stage, 'link', ['Spring rental 2026', ''], { prices: { USD: '95.00' } });
        await setOfferState(actor, camp.id, 'closed');
      }),
    ],
  ];
}
