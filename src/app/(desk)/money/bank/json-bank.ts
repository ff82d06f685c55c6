import { agreeing } from '@/core/bank/match/match';
import type { Agreement, Fact, Proposal } from '@/core/bank/match/things';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import type { BankPage, ShownLine } from '@/flows/bank/bank-page';
import type { Imported } from '@/flows/bank/import-statement';
import type { BankFact, BankLineShown, BankProposal } from '@/ui/bank/bank-shown';

const FACT_LABELS: Readonly<Record<Fact['fact'], string>> = {
  reference: 'A reference',
  number: 'A number',
  sum: 'The sum',
  payer: 'Paid by',
  always: 'Always so',
};

/** What a fact means to the proposal, as it reads below it. */
function meaning({ fact, means, agrees }: Fact, line: ShownLine, locale: string): string {
  const text = (minor: bigint) => moneyText(money(minor, line.currency), locale);
  if (fact === 'sum') {
    const off = line.amount - BigInt(means);
    if (off === 0n) return 'The same to the cent';
    return `It comes to ${text(BigInt(means))}: ${text(off < 0n ? -off : off)} ${off < 0n ? 'more than this' : 'less'}`;
  }
  if (fact === 'payer')
    return agrees === 'no' ? `The invoice is ${means}’s` : agrees === 'equal' ? means : `Looks like ${means}`;
  return means;
}

const jsonFact = (fact: Fact, line: ShownLine, locale: string): BankFact => ({
  label: FACT_LABELS[fact.fact],
  found: fact.fact === 'sum' ? figureText(money(line.amount, line.currency), locale) : fact.found,
  means: meaning(fact, line, locale),
  agrees: fact.agrees satisfies Agreement,
});

function jsonProposal(proposal: Proposal, line: ShownLine, locale: string): BankProposal {
  const { key, title, parts, rest, facts, sure } = proposal;
  return {
    key,
    title:
      rest > 0n && parts[0]?.kind === 'invoice'
        ? `${title}, ${moneyText(money(rest, line.currency), locale)} over`
        : title,
    parts: parts.map((part) => ({ ...part, minor: jsonMinor(part.minor) })),
    rest: jsonMinor(rest),
    facts: facts.map((fact) => jsonFact(fact, line, locale)),
    agreeing: agreeing(proposal),
    sure,
  };
}

/** A line as the screen shows it. */
export function jsonLine(line: ShownLine, { deskLocale: locale }: BankPage['business']): BankLineShown {
  const [best] = line.proposals;
  const matched = line.matches.map(({ words }) => words).join(', ');
  return {
    id: line.id,
    day: shortDate(line.day, locale, { weekday: true }),
    minor: jsonMinor(line.amount),
    open: jsonMinor(line.amount - line.matches.reduce((sum, { amount }) => sum + amount, 0n)),
    name: line.name,
    text: line.text,
    reference: line.reference,
    otherAccount: line.otherAccount,
    title: line.name || line.text || 'Without words',
    under:
      line.state === 'matched'
        ? matched
        : (best?.title ?? (line.amount < 0n ? 'You paid; nobody knows what for' : 'Nothing of this sum is waiting')),
    group: line.state === 'matched' ? 'matched' : line.state === 'later' ? 'later' : best ? best.sure : 'unknown',
    matches: line.matches.map(({ words, amount, invoiceId, paymentId, payoutId, byName }) => ({
      words,
      minor: jsonMinor(amount),
      href: payoutId
        ? `/money/payouts/${payoutId}`
        : paymentId
          ? `/money/payments/${paymentId}`
          : invoiceId
            ? `/ask/invoices/${invoiceId}`
            : null,
      byName,
    })),
    proposals: line.proposals.map((proposal) => jsonProposal(proposal, line, locale)),
  };
}

/** What became of a file, with sums as numbers. */
export const jsonImported = (imported: Imported) =>
  imported.kind === 'columns'
    ? imported
    : { ...imported, statements: imported.statements.map((one) => ({ ...one, off: jsonMinor(one.off) })) };
