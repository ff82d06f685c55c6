import { findReferences, makeReference, plainOfReference } from '../reference';
import { addingUp } from './adding-up';
import { nameLikeness, nameWords } from './names';
import { numbersIn, plainKey } from './numbers';
import type {
  Agreement,
  Aside,
  Fact,
  MatchLine,
  MatchRule,
  OpenInvoice,
  OpenPayout,
  OpenRefund,
  OpenThings,
  PaidBefore,
  Proposal,
  ProposedPart,
  Sureness,
} from './things';
import { ASIDE_TITLES } from './things';

const MOST_PROPOSALS = 4;
/** So many open invoices of a payer are looked at together. */
const MOST_TOGETHER = 14;

const least = (a: bigint, b: bigint): bigint => (a < b ? a : b);

type Index = {
  readonly byNumber: ReadonlyMap<string, OpenInvoice>;
  readonly byReference: ReadonlyMap<string, OpenInvoice>;
  readonly bySum: ReadonlyMap<bigint, readonly OpenInvoice[]>;
  readonly byCustomer: ReadonlyMap<string, readonly OpenInvoice[]>;
  /** Customers by each word of their name. */
  readonly byWord: ReadonlyMap<string, ReadonlySet<string>>;
  readonly names: ReadonlyMap<string, readonly string[]>;
};

function grouped<Key, Value>(list: readonly Value[], keyOf: (value: Value) => Key): Map<Key, Value[]> {
  const groups = new Map<Key, Value[]>();
  for (const one of list) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}

function indexOf(invoices: readonly OpenInvoice[]): Index {
  const byWord = new Map<string, Set<string>>();
  const names = new Map<string, readonly string[]>();
  for (const { customerId, customer } of invoices) {
    if (names.has(customerId)) continue;
    const words = nameWords(customer);
    names.set(customerId, words);
    for (const word of words) {
      // Banks cut words: what they begin with finds them.
      for (const key of new Set([word, word.slice(0, 3)])) {
        const own = byWord.get(key) ?? new Set();
        own.add(customerId);
        byWord.set(key, own);
      }
    }
  }
  return {
    byNumber: new Map(invoices.map((one) => [plainKey(one.number), one])),
    byReference: new Map(
      invoices.flatMap((one) => (plainKey(one.number).length <= 21 ? [[plainKey(one.number), one] as const] : [])),
    ),
    bySum: grouped(invoices, ({ due }) => due),
    byCustomer: grouped(invoices, ({ customerId }) => customerId),
    byWord,
    names,
  };
}

/** So many customers share a word of a name at the most for it to tell anything. */
const MOST_NAMESAKES = 400;

/** Puts what lines can be about in order, once; then each line is quick. */
export function matcher(things: OpenThings): (line: MatchLine) => Proposal[] {
  const index = indexOf(things.invoices);
  const payoutsByReference = new Map(
    things.payouts.map((one) => [plainKey(makeReference(`PO${one.number}`).reference), one]),
  );
  const payoutsBySum = grouped(things.payouts, ({ amount }) => amount);
  const refundsByKey = new Map(things.refunds.map((one) => [plainKey(one.id), one]));
  const refundsBySum = grouped(things.refunds, ({ amount }) => amount);
  const paymentsBySum = grouped(things.payments, ({ amount }) => amount);
  const checks = new Set(things.checks);
  const customersBy = (keyOf: (one: PaidBefore) => string): Map<string, Set<string>> => {
    const groups = grouped(
      things.before.filter((one) => keyOf(one) !== ''),
      keyOf,
    );
    return new Map([...groups].map(([key, list]) => [key, new Set(list.map(({ customerId }) => customerId))]));
  };
  const beforeByAccount = customersBy(({ account }) => account);
  const beforeByWords = customersBy(({ words }) => words);

  /** Customers whose name the line's is like, the likest first. */
  function payersOf(
    line: MatchLine,
    rule: MatchRule | undefined,
  ): Map<string, { likeness: Agreement; by: 'name' | 'always' | 'before' }> {
    const found = new Map<string, { likeness: Agreement; by: 'name' | 'always' | 'before' }>();
    if (rule?.customerId) found.set(rule.customerId, { likeness: 'equal', by: 'always' });
    const words = nameWords(line.name);
    // An account is one person's; a name may be two's, and then tells nothing.
    const known =
      (line.otherAccount ? beforeByAccount.get(line.otherAccount) : undefined) ?? beforeByWords.get(words.join(' '));
    if (known?.size === 1)
      for (const id of known) if (!found.has(id)) found.set(id, { likeness: 'equal', by: 'before' });
    const seen = new Set<string>();
    for (const word of words)
      for (const key of [word, word.slice(0, 3)]) {
        const ids = index.byWord.get(key);
        if (!ids || ids.size > MOST_NAMESAKES) continue;
        for (const id of ids) {
          if (seen.has(id) || found.has(id)) continue;
          seen.add(id);
          const likeness = nameLikeness(words, index.names.get(id) ?? []);
          if (likeness !== 'no') found.set(id, { likeness, by: 'name' });
        }
      }
    return found;
  }

  const payerFact = (
    line: MatchLine,
    customerId: string,
    customer: string,
    payers: ReturnType<typeof payersOf>,
  ): Fact | null => {
    if (!line.name && !payers.has(customerId)) return null;
    const payer = payers.get(customerId);
    if (payer?.by === 'always')
      return { fact: 'always', found: line.name || line.otherAccount, means: customer, agrees: 'equal' };
    if (payer?.by === 'before')
      return {
        fact: 'payer',
        found: line.name || line.otherAccount,
        means: `${customer}, who paid so before`,
        agrees: 'equal',
      };
    return { fact: 'payer', found: line.name, means: customer, agrees: payer?.likeness ?? 'no' };
  };

  const sumFact = (line: MatchLine, wanted: bigint): Fact => ({
    fact: 'sum',
    found: String(line.amount),
    means: String(wanted),
    agrees: line.amount === wanted ? 'equal' : 'no',
  });

  function proposeInvoices(line: MatchLine, rule: MatchRule | undefined): Proposal[] {
    const list: Proposal[] = [];
    const payers = payersOf(line, rule);
    const said = [line.reference, line.text, line.endToEnd].join(' ');
    const named = new Map<string, { invoice: OpenInvoice; fact: Fact }>();
    for (const reference of findReferences(said)) {
      const invoice = index.byReference.get(plainOfReference(reference) ?? '');
      if (invoice)
        named.set(invoice.id, {
          invoice,
          fact: { fact: 'reference', found: reference, means: `Invoice ${invoice.number}`, agrees: 'equal' },
        });
    }
    for (const [number, written] of numbersIn(said)) {
      const invoice = index.byNumber.get(number);
      if (invoice && !named.has(invoice.id))
        named.set(invoice.id, {
          invoice,
          fact: { fact: 'number', found: written, means: `Invoice ${invoice.number}`, agrees: 'equal' },
        });
    }
    const add = (invoices: readonly OpenInvoice[], facts: readonly Fact[], sure: Sureness) => {
      const [first] = invoices;
      if (!first) return;
      let left: bigint = line.amount;
      const parts = invoices.map((one): ProposedPart => {
        // Less than all are due: the last one is paid in part.
        const minor = least(left, one.due);
        left -= minor;
        return { kind: 'invoice', id: one.id, label: `Invoice ${one.number}`, minor };
      });
      list.push({
        key: invoices.map(({ id }) => id).join('+'),
        title: invoices.length === 1 ? `Invoice ${first.number}` : `${invoices.length} invoices`,
        parts: parts.filter(({ minor }) => minor > 0n),
        rest: line.amount - invoices.reduce((sum, { due }) => sum + due, 0n),
        facts,
        sure,
        customerId: first.customerId,
      });
    };
    const factsOf = (invoices: readonly OpenInvoice[]): Fact[] => {
      const [first] = invoices;
      const payer = first && payerFact(line, first.customerId, first.customer, payers);
      return [
        ...(payer ? [payer] : []),
        ...invoices.flatMap(({ id }) => named.get(id)?.fact ?? []),
        sumFact(
          line,
          invoices.reduce((sum, { due }) => sum + due, 0n),
        ),
      ];
    };
    const payerSays = (id: string): Agreement | 'silent' => payers.get(id)?.likeness ?? (line.name ? 'no' : 'silent');
    const all = [...named.values()].map(({ invoice }) => invoice);
    const isOneCustomers = new Set(all.map(({ customerId }) => customerId)).size === 1;
    if (all.length > 1 && isOneCustomers) {
      const sum = all.reduce((total, { due }) => total + due, 0n);
      const who = payerSays(all[0]?.customerId ?? '');
      add(all, factsOf(all), sum === line.amount ? (who === 'no' ? 'likely' : 'sure') : 'likely');
    }
    for (const { invoice, fact } of named.values()) {
      const who = payerSays(invoice.customerId);
      const isSum = invoice.due === line.amount;
      const sure: Sureness =
        isSum && (fact.fact === 'reference' || who !== 'no')
          ? 'sure'
          : isSum || fact.fact === 'reference' || who === 'equal' || who === 'like'
            ? 'likely'
            : 'could';
      // One of several that are named is not sure: why should the others stand there?
      add([invoice], factsOf([invoice]), all.length > 1 && sure === 'sure' && isOneCustomers ? 'likely' : sure);
    }
    for (const invoice of (index.bySum.get(line.amount) ?? []).slice(0, 60)) {
      if (named.has(invoice.id)) continue;
      const who = payerSays(invoice.customerId);
      if (named.size > 0 && who === 'no') continue;
      add([invoice], factsOf([invoice]), who === 'equal' || who === 'like' ? 'likely' : 'could');
    }
    for (const [customerId, { likeness }] of payers) {
      const own = (index.byCustomer.get(customerId) ?? []).slice(0, MOST_TOGETHER);
      const together = addingUp(own, line.amount);
      if (
        together &&
        together.length > 1 &&
        !(all.length === together.length && together.every(({ id }) => named.has(id)))
      )
        add(together, factsOf(together), 'likely');
      const [oldest] = [...own].sort((a, b) => ((a.dueOn ?? '') < (b.dueOn ?? '') ? -1 : 1));
      if (oldest && !named.has(oldest.id) && oldest.due !== line.amount && likeness === 'equal')
        add([oldest], factsOf([oldest]), 'could');
    }
    return list;
  }

  function proposePayments(line: MatchLine): Proposal[] {
    const list: Proposal[] = [];
    const words = nameWords(line.name);
    const said = numbersIn([line.text, line.reference, line.endToEnd].join(' '));
    for (const payment of paymentsBySum.get(line.amount) ?? []) {
      if (payment.method === 'cash') continue;
      const likeness = nameLikeness(words, nameWords(payment.customer));
      const written =
        said.get(plainKey(payment.invoiceNumber)) ?? (payment.reference && said.get(plainKey(payment.reference)));
      const facts: Fact[] = [
        ...(line.name && payment.method === 'transfer'
          ? [{ fact: 'payer' as const, found: line.name, means: payment.customer, agrees: likeness }]
          : []),
        ...(written
          ? [{ fact: 'number' as const, found: written, means: payment.invoiceNumber, agrees: 'equal' as const }]
          : []),
        sumFact(line, payment.amount),
      ];
      list.push({
        key: payment.id,
        title:
          payment.method === 'cheque'
            ? `Cheque of ${payment.customer}`
            : `Written down already: ${payment.customer}, invoice ${payment.invoiceNumber}`,
        parts: [
          { kind: 'payment', id: payment.id, label: `Payment of invoice ${payment.invoiceNumber}`, minor: line.amount },
        ],
        rest: 0n,
        facts,
        sure: written ? 'sure' : likeness !== 'no' ? 'likely' : 'could',
        customerId: payment.customerId,
      });
    }
    // Several cheques, or the cash of some days, are banked together.
    for (const method of ['cheque', 'cash'] as const) {
      const own = things.payments.filter((one) => one.method === method).slice(0, MOST_TOGETHER);
      const together = addingUp(
        own.map((one) => ({ ...one, due: one.amount })),
        line.amount,
      );
      if (!together || (together.length < 2 && method === 'cheque')) continue;
      list.push({
        key: together.map(({ id }) => id).join('+'),
        title:
          method === 'cheque'
            ? `${together.length} cheques`
            : together.length === 1
              ? 'Cash paid in'
              : `Cash of ${together.length} payments`,
        parts: together.map(({ id, invoiceNumber, amount }) => ({
          kind: 'payment' as const,
          id,
          label: `Payment of invoice ${invoiceNumber}`,
          minor: amount,
        })),
        rest: 0n,
        facts: [sumFact(line, line.amount)],
        sure: 'could',
        customerId: null,
      });
    }
    return list;
  }

  function proposePayouts(line: MatchLine): Proposal[] {
    const said = [line.reference, line.text].join(' ');
    const references = [line.reference, ...findReferences(said)].map(plainKey);
    const named = references.flatMap((reference) => payoutsByReference.get(reference) ?? [])[0];
    const of = (payout: OpenPayout, facts: Fact[], sure: Sureness): Proposal => ({
      key: payout.id,
      title: `Payout ${payout.number}`,
      parts: [{ kind: 'payout', id: payout.id, label: `Payout ${payout.number}`, minor: line.amount }],
      rest: line.amount - payout.amount,
      facts,
      sure,
      customerId: null,
    });
    if (named) {
      const fact: Fact = { fact: 'reference', found: line.reference, means: `Payout ${named.number}`, agrees: 'equal' };
      return named.amount === line.amount ? [of(named, [fact, sumFact(line, named.amount)], 'sure')] : [];
    }
    return (payoutsBySum.get(line.amount) ?? [])
      .slice(0, 2)
      .map((payout) => of(payout, [sumFact(line, payout.amount)], 'could'));
  }

  function proposeRefunds(line: MatchLine): Proposal[] {
    const paid = -line.amount;
    const of = (refund: OpenRefund, facts: Fact[], sure: Sureness): Proposal => ({
      key: refund.id,
      title: `Refund to ${refund.payee}`,
      parts: [{ kind: 'refund', id: refund.id, label: `Refund of ${refund.about}`, minor: line.amount }],
      rest: 0n,
      facts,
      sure,
      customerId: null,
    });
    const sum = (refund: OpenRefund): Fact => ({ ...sumFact(line, -refund.amount), means: String(-refund.amount) });
    const named = refundsByKey.get(plainKey(line.endToEnd));
    if (named && named.amount === paid)
      return [
        of(
          named,
          [{ fact: 'reference', found: line.endToEnd, means: `Refund of ${named.about}`, agrees: 'equal' }, sum(named)],
          'sure',
        ),
      ];
    return (refundsBySum.get(paid) ?? []).slice(0, 3).map((refund) => {
      const agrees = nameLikeness(nameWords(line.name), nameWords(refund.payee));
      const payer: Fact[] = line.name ? [{ fact: 'payer', found: line.name, means: refund.payee, agrees }] : [];
      return of(refund, [...payer, sum(refund)], agrees === 'no' ? 'could' : 'likely');
    });
  }

  const aside = (line: MatchLine, to: Aside, sure: Sureness, facts: Fact[], note = ''): Proposal => ({
    key: `aside ${to}`,
    title: note || ASIDE_TITLES[to],
    parts: [{ kind: 'aside', id: to, label: note || ASIDE_TITLES[to], minor: line.amount }],
    rest: 0n,
    facts,
    sure,
    customerId: null,
  });

  const rulesByAccount = new Map(
    things.rules.flatMap((rule) => (rule.account ? [[`${rule.isIn} ${rule.account}`, rule] as const] : [])),
  );
  const rulesByWords = new Map(
    things.rules.flatMap((rule) => (rule.words ? [[`${rule.isIn} ${rule.words}`, rule] as const] : [])),
  );
  const ruleOf = (line: MatchLine): MatchRule | undefined => {
    const isIn = line.amount > 0n;
    return (
      (line.otherAccount ? rulesByAccount.get(`${isIn} ${line.otherAccount}`) : undefined) ??
      rulesByWords.get(`${isIn} ${ruleWords(line)}`)
    );
  };

  return (line) => {
    const rule = ruleOf(line);
    if (checks.has(plainKey(line.endToEnd)))
      return [
        aside(line, 'check', 'sure', [
          { fact: 'reference', found: line.endToEnd, means: 'Sum to confirm the account', agrees: 'equal' },
        ]),
      ];
    const always: Fact = { fact: 'always', found: line.name || line.text, means: rule?.note ?? '', agrees: 'equal' };
    const ruled = rule?.aside ? [aside(line, rule.aside, 'sure', [always], rule.note)] : [];
    const list =
      line.amount > 0n
        ? [...proposePayouts(line), ...proposePayments(line), ...proposeInvoices(line, rule)]
        : [
            ...proposeRefunds(line),
            ...(CHARGE.test(`${line.text} ${line.name}`) ? [aside(line, 'charge', 'likely', [])] : []),
          ];
    const sorted = [...ruled, ...list].sort((a, b) => rank(b) - rank(a));
    const shown = new Map(sorted.map((one) => [one.key, one]).reverse() as [string, Proposal][]);
    const distinct = sorted.filter((one) => shown.get(one.key) === one).slice(0, MOST_PROPOSALS);
    // Two that are equally sure are not.
    const sure = distinct.filter((one) => one.sure === 'sure');
    return sure.length > 1
      ? distinct.map((one) => (one.sure === 'sure' ? { ...one, sure: 'likely' as const } : one))
      : distinct;
  };
}

const CHARGE = /\b(fee|fees|charge|charges|account keeping|entgelt|gebühr|gebuehr|provision|frais|comisi[oó]n)\b/i;

const SURE_RANK: Readonly<Record<Sureness, number>> = { sure: 200, likely: 100, could: 0 };
const AGREES_RANK: Readonly<Record<Agreement, number>> = { equal: 10, like: 6, no: -4 };
const rank = ({ sure, facts }: Proposal): number =>
  SURE_RANK[sure] + facts.reduce((sum, { agrees }) => sum + AGREES_RANK[agrees], 0);

/** By which words of a line it is known again: the name, else the first words of the text without numbers. */
export const ruleWords = ({ name, text }: Pick<MatchLine, 'name' | 'text'>): string =>
  (name ? nameWords(name) : nameWords(text.replace(/\d+/g, ' ')).slice(0, 3)).join(' ');

/** How many of a proposal's facts agree. */
export const agreeing = ({ facts }: Pick<Proposal, 'facts'>): number =>
  facts.filter(({ agrees }) => agrees !== 'no').length;
