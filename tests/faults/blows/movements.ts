/** Everything that moves money, done as people do it: over HTTP, again and again until there is an answer. */
import { randomUUID } from 'node:crypto';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { Refusal } from '@/flows/door/refusal';
import { recordReceived } from '@/flows/payment/receive-payment';
import { asSuperuser } from '../../support/database';
import { signIn } from '../../support/signed-in';
import type { Stack } from '../../support/stack';
import { pause } from '../../support/until';
import { cardToken, fetchedWork, type House, sentInvoice } from '../../support/workshop';
import { asked, stateOf, stubbornly } from './patience';

export const MOVEMENTS = ['invoice', 'order', 'repeated order', 'refund', 'invoice refund', 'void', 'cash'] as const;
export type Movement = (typeof MOVEMENTS)[number];

/** A business under fire, with its offers and its owner's way in. */
export type Target = {
  readonly house: House;
  readonly email: string;
  readonly password: string;
  readonly offers: readonly string[];
  readonly repeated: readonly string[];
};

type Chance = () => number;
const oneOf = <T>(chance: Chance, all: readonly T[]): T => all[Math.floor(chance() * all.length)] as T;

/** Which card somebody tries; most are good, some are refused, late, or ask the bank first. */
const cardFor = (chance: Chance): string =>
  chance() < 0.9
    ? oneOf(chance, ['corvid-good', 'lumen-good'])
    : oneOf(chance, ['corvid-poor', 'corvid-late', 'lumen-late']);

const LOOKS = 1000;

const token = (stack: Stack, card: string): Promise<string> =>
  stubbornly('a token', async () => {
    const made = await cardToken(stack.standIns, card);
    if (!made) throw new Error('no token');
    return made;
  });

/** Presses with card after card until it is paid, as a person does who is told "refused". */
async function pressUntilPaid(
  card: (press: number) => string,
  press: (attemptKey: string, cardName: string) => Promise<string>,
): Promise<void> {
  for (let presses = 0; presses < 100; presses++) {
    const state = await press(randomUUID(), card(presses));
    if (state === 'paid') return;
  }
  throw new Error('Never paid');
}

/** Pays an invoice; the payment's id. */
async function payInvoice(stack: Stack, target: Target, chance: Chance): Promise<string> {
  const { id, link } = await stubbornly('an invoice', () => sentInvoice(target.house), true);
  const first = cardFor(chance);
  await pressUntilPaid(
    (press) => (press === 0 ? first : 'corvid-good'),
    async (attemptKey, cardName) => {
      const cardTokenOf = await token(stack, cardName);
      const path = `/api/pay/${link}`;
      let answer = null;
      for (let looks = 0; looks < LOOKS; looks++) {
        // Pressed again under the same key until somebody says something; then asked.
        if (!answer || stateOf(answer) === 'none') {
          const work = await fetchedWork(stack.web, path).catch(() => null);
          answer =
            work && (await asked(stack.web, path, { attemptKey, cardToken: cardTokenOf, amountMinor: 11_000, work }));
        } else answer = await asked(stack.web, `${path}/status?attempt=${attemptKey}`);
        if (answer?.code === 'already-paid' || stateOf(answer) === 'paid') return 'paid';
        if (stateOf(answer) === 'refused') return 'refused';
        await pause(60);
      }
      throw new Error(`No outcome for invoice ${link}: ${JSON.stringify(answer)}`);
    },
  );
  const [row] = await stubbornly('the payment', () =>
    asSuperuser<{ id: string }>(stack.admin, `select id from payments where invoice_id = $1 and state = 'paid'`, [id]),
  );
  if (!row) throw new Error(`Invoice ${link} was told that it is paid, and is not`);
  return row.id;
}

/** What somebody sees and chooses on a checkout, with the sum on its button. */
async function quotedCheckout(called: string, repeat: boolean) {
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  if (!page) throw new Error('Nothing is placed there');
  const mine = {
    name: 'Ida Marsh',
    email: 'ida@marsh.example',
    ...(repeat ? { repeat: 'month:1', agrees: true } : {}),
  };
  const asks = { choice: { ...page.begun, ...mine }, quote: page.quote.token, request: '', locale: 'en-US' };
  const { chargedMinor, laterMinor } = await checkoutQuote(called, asks);
  return { ...asks, chargedMinor: Number(chargedMinor), laterMinor };
}

/** Pays for an offer; the payment's id. */
async function payOrder(stack: Stack, target: Target, chance: Chance, repeat: boolean): Promise<string> {
  const called = oneOf(chance, repeat ? target.repeated : target.offers);
  const path = `/api/checkout/${called}`;
  const checkoutKey = randomUUID();
  const first = cardFor(chance);
  let paidUnder = '';
  await pressUntilPaid(
    (press) => (press === 0 ? first : 'lumen-good'),
    async (attemptKey, cardName) => {
      const cardTokenOf = await token(stack, cardName);
      const quoted = await stubbornly('a checkout', () => quotedCheckout(called, repeat));
      const body = { ...quoted, checkoutKey, attemptKey, cardToken: cardTokenOf, passed: {} };
      let answer = null;
      for (let looks = 0; looks < LOOKS; looks++) {
        if (!answer || stateOf(answer) === 'none') {
          const work = await fetchedWork(stack.web, path).catch(() => null);
          answer = work && (await asked(stack.web, path, { ...body, work }));
          // The card was not kept: the attempt is over, the next card is tried.
          if (answer?.code === 'card-not-kept') return 'refused';
          if (answer && !answer.ok && answer.code !== 'not-a-robot')
            throw new Error(`A checkout says ${answer.code}: ${answer.words}`);
          if (answer && !answer.ok) answer = null;
        } else answer = await asked(stack.web, `${path}/status?checkout=${checkoutKey}`);
        if (stateOf(answer) === 'paid') {
          paidUnder = attemptKey;
          return 'paid';
        }
        if (stateOf(answer) === 'refused') return 'refused';
        await pause(60);
      }
      throw new Error(`No outcome for a checkout of ${called}: ${JSON.stringify(answer)}`);
    },
  );
  const [row] = await stubbornly('the payment', () =>
    asSuperuser<{ id: string }>(
      stack.admin,
      `select p.id from payments p join orders o on o.business_id = p.business_id and o.id = p.order_id
       where o.checkout_key = $1 and p.state = 'paid'`,
      [checkoutKey],
    ),
  );
  if (!row) throw new Error(`A checkout was told that it is paid, under ${paidUnder}, and is not`);
  return row.id;
}

let addresses = 0;
/** The cookie of the owner's session, made anew when the clock has ended the last one. */
const cookies = new Map<string, string>();
async function cookieOf({ email, password }: Target, anew = false): Promise<string> {
  const known = cookies.get(email);
  if (known && !anew) return known;
  const { token: session } = await stubbornly('signing in', () => signIn(email, password, `blows ${addresses++}`));
  const cookie = `dahlia_session=${session}`;
  cookies.set(email, cookie);
  return cookie;
}

/** Gives a payment back: a sum of an order's, a line of an invoice's with its credit note, or all of it as if it had not been. */
async function giveBack(
  stack: Stack,
  target: Target,
  chance: Chance,
  what: 'refund' | 'invoice refund' | 'void',
): Promise<void> {
  const isInvoice = what === 'invoice refund';
  const paymentId = isInvoice ? await payInvoice(stack, target, chance) : await payOrder(stack, target, chance, false);
  const sum = { by: 'sum', amountMinor: 1000 + Math.floor(chance() * 3000) };
  const line = { by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false };
  const body = {
    wish: what === 'void' ? { by: 'void' } : isInvoice ? line : sum,
    method: 'card',
    reference: '',
    owedAgain: false,
    reason: 'Blows',
    aside: {},
    requestKey: randomUUID(),
  };
  for (let looks = 0; looks < LOOKS; looks++) {
    const answer = await asked(stack.web, `/api/payments/${paymentId}/refund`, body, await cookieOf(target));
    if (answer?.ok) return;
    if (answer?.code === 'not-signed-in') await cookieOf(target, true);
    else if (answer) throw new Error(`Giving back says ${answer.code}: ${answer.words}`);
    await pause(60);
  }
  throw new Error(`${paymentId} was never given back`);
}

async function takeCash(target: Target): Promise<void> {
  const { id } = await stubbornly('an invoice', () => sentInvoice(target.house), true);
  const requestKey = randomUUID();
  const received = {
    amountMinor: 11_000n,
    method: 'cash',
    reference: '',
    receivedOn: '2027-01-04',
    requestKey,
  } as const;
  try {
    await stubbornly('cash', () => recordReceived(target.house.owner, id, received));
  } catch (error) {
    // Written down by the try whose answer was lost.
    if (!(error instanceof Refusal)) throw error;
  }
}

/** One movement of money, from the first press to its end. */
export async function move(stack: Stack, target: Target, movement: Movement, chance: Chance): Promise<void> {
  switch (movement) {
    case 'invoice':
      return void (await payInvoice(stack, target, chance));
    case 'order':
      return void (await payOrder(stack, target, chance, false));
    case 'repeated order':
      return void (await payOrder(stack, target, chance, true));
    case 'refund':
    case 'invoice refund':
    case 'void':
      return giveBack(stack, target, chance, movement);
    case 'cash':
      return takeCash(target);
  }
}
