/** What once ended in an error of ours: keys and ids of other things where one's own belong. Each is answered with a rule's no. */
import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { saveDraft, startInvoice } from '@/flows/invoice/draft';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { payByLink, takePayment } from '@/flows/payment/take-payment';
import { keepPlan } from '@/flows/plan/plans';
import { keepTaxRules, taxRules } from '@/flows/records/taxes';
import { planTerms } from '../../../tests/support/plans';
import {
  cardToken,
  foundHouse,
  keptDraft,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { Refusal } from './refusal';

const workshop = await sharedWorkshop();
const mine = await foundHouse();
const theirs = await foundHouse('Other');

/** A rule's no, or done: anything else is an error of ours. */
async function outcome(work: Promise<unknown>): Promise<string> {
  try {
    await work;
    return 'done';
  } catch (error) {
    if (error instanceof Refusal) return error.code;
    throw error;
  }
}

test('an attempt’s key that was used for another invoice, of this business or another, pays nothing else', async () => {
  const [one, two] = [await sentInvoice(mine), await sentInvoice(mine)];
  const other = await sentInvoice(theirs);
  const attemptKey = randomUUID();
  const attempt = async () => ({
    attemptKey,
    cardToken: await cardToken(workshop.standIns, 'corvid-good'),
    amountMinor: 11_000n,
  });
  await takePayment(one.link, await attempt(), 'a');
  for (const { link } of [two, other]) {
    const said = await outcome(takePayment(link, await attempt(), 'a'));
    expect(said).toBe(link === other.link ? 'done' : 'attempt-used');
  }
  expect(typeof payByLink).toBe('function');
});

test('a tax of another business on a paper, and among the rules, is no error of ours', async () => {
  const id = await startInvoice(mine.owner);
  const foreign = plainPaper(mine, {
    lines: plainPaper(mine).lines.map((line) => ({ ...line, taxes: [theirs.taxId] })),
  });
  await outcome(saveDraft(mine.owner, id, foreign, 0));
  await outcome(sendInvoice(mine.owner, id, 1, 'mail'));
  const draft = await keptDraft(mine);
  await outcome(
    saveDraft(
      mine.owner,
      draft,
      { ...foreign, fees: [{ id: randomUUID(), name: 'x', amount: '1', taxes: [randomUUID()] }] },
      1,
    ),
  );
  const terms = planTerms(mine, '2040-01-01');
  const lines = terms.paper.lines.map((line) => ({ ...line, taxes: [theirs.taxId] }));
  await outcome(
    keepPlan(mine.owner, null, { terms: { ...terms, paper: { ...terms.paper, lines } }, memo: '', reference: '' }),
  );
  const [rule] = await taxRules(theirs.owner);
  if (!rule) throw new Error('No rule');
  await outcome(keepTaxRules(mine.owner, [{ ...rule, rate: '0' }]));
  expect(await taxRules(theirs.owner)).toEqual([rule]);
});
