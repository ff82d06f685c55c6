import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { ASIDE_TITLES } from '@/core/bank/match/things';
import { dayHeading, shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { mayDo } from '@/core/person/rights';
import { type BankPage, bankPage } from '@/flows/bank/bank-page';
import { BankPageInput } from '@/input/bank-input';
import { FetchStatements, ForgetRule } from '@/ui/bank/bank-actions';
import { BankDesk } from '@/ui/bank/bank-desk';
import { ImportStatement } from '@/ui/bank/import-statement';
import { Amount, Figure } from '@/ui/kit/amount';
import { Empty } from '@/ui/kit/empty';
import { MoneyTabs } from '../money-tabs';
import { jsonLine } from './json-bank';

export const metadata: Metadata = { title: 'Bank' };

/** What waits, in a sentence. */
function waiting({ lines, more }: BankPage): string {
  const open = lines.filter(({ state }) => state === 'open');
  if (open.length === 0) return 'Nothing waits: every line is matched.';
  const known = open.filter(({ proposals }) => proposals[0]).length;
  const count = more ? `More than ${open.length}` : open.length === 1 ? 'One' : String(open.length);
  return `${count} ${open.length === 1 ? 'line waits' : 'lines wait'}${known > 0 ? `, of ${known === open.length ? (known === 1 ? 'which' : 'all') : known} there is an idea` : ''}.`;
}

/** Opening and what moved make the closing, of the latest statement. */
function Strip({ page }: { page: BankPage }) {
  const { latest, moneyIn, moneyOut, business, shown } = page;
  if (!latest || !shown || latest.opening === null || latest.closing === null) return null;
  const { deskLocale: locale } = business;
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={shown.currency} locale={locale} />;
  const off = latest.opening + moneyIn.minor + moneyOut.minor - latest.closing;
  const dots = (
    <span aria-hidden="true" className="hidden flex-1 border-b-[1.5px] border-dotted border-[var(--dots)] sm:block" />
  );
  return (
    <section
      aria-label="The latest statement"
      className="mt-5 border-t border-rule bg-wash px-4 py-2.5 sm:-mx-7 sm:px-7"
    >
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1 font-serif text-[16px]/6">
        <span>
          {latest.to ? `${shortDate(latest.to, locale, { weekday: true })}: opening` : 'Opening'}{' '}
          <b className="font-semibold">{figure(latest.opening)}</b>
        </span>
        {dots}
        <span>
          + {moneyIn.count} in <b className="font-semibold">{figure(moneyIn.minor)}</b>
        </span>
        {dots}
        <span>
          − {moneyOut.count} out <b className="font-semibold">{figure(-moneyOut.minor)}</b>
        </span>
        {dots}
        <span>
          = closing{' '}
          <b className="rule-total px-0.5 font-semibold">
            <Amount minor={jsonMinor(latest.closing)} currency={shown.currency} locale={locale} />
          </b>
        </span>
        <span className={`font-sans text-[13px] ${off === 0n ? 'text-leaf' : 'text-brick'}`}>
          {off === 0n
            ? 'as the bank has it'
            : `${moneyText(money(off < 0n ? -off : off, shown.currency), locale)} ${off < 0n ? 'are missing' : 'too much'}`}
        </span>
      </p>
    </section>
  );
}

/** What is wrong with the statements: one that is missing, one that does not add up. */
function Troubles({ page: { gaps, differing, business, shown } }: { page: BankPage }) {
  const { deskLocale: locale } = business;
  const currency = shown?.currency ?? business.currency;
  const gap = gaps.at(-1);
  const wrong = differing.at(-1);
  if (!gap && !wrong) return null;
  return (
    <div className="mt-3 grid gap-1 border border-brick px-4 py-2" role="status">
      {gap ? (
        <p>
          <b className="font-semibold text-brick">A statement is missing</b>
          {gap.from && gap.to && gap.from <= gap.to
            ? `, ${gap.from === gap.to ? shortDate(gap.from, locale) : `${shortDate(gap.from, locale)} to ${shortDate(gap.to, locale)}`}`
            : ''}
          : {moneyText(money(gap.minor < 0n ? -gap.minor : gap.minor, currency), locale)}{' '}
          {gap.minor < 0n ? 'went' : 'came'} that no line tells of. Ask the bank for it and import it.
        </p>
      ) : null}
      {wrong ? (
        <p>
          <b className="font-semibold text-brick">{wrong.name}</b>: opening, lines and closing do not agree. Its lines
          stay; ask the bank for the whole statement.
        </p>
      ) : null}
    </div>
  );
}

/** What somebody said is always so. */
function Rules({ page: { rules }, may }: { page: BankPage; may: boolean }) {
  if (rules.length === 0) return null;
  return (
    <details className="mt-5">
      <summary className="cursor-pointer font-semibold">
        {rules.length === 1 ? 'One thing is' : `${rules.length} things are`} always so
      </summary>
      <ul className="mt-1 max-w-[640px]">
        {rules.map((rule) => {
          const called = rule.words || `account ${rule.account}`;
          return (
            <li key={rule.id} className="flex items-baseline gap-4 border-b border-rule py-1.5">
              <span className="private min-w-0 flex-1 truncate">
                {called} <span className="text-soft">{rule.isIn ? 'pays in' : 'is paid'}:</span>{' '}
                {rule.note || (rule.aside ? ASIDE_TITLES[rule.aside] : 'a customer')}
              </span>
              {may ? <ForgetRule id={rule.id} called={called} /> : null}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

export default async function BankScreen({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(BankPageInput, searchParams);
  const page = await bankPage(
    actor,
    asked.account ?? '',
    asked.currency ?? '',
    asked.matched ? Number(asked.matched) : undefined,
  );
  const { business, shown, accounts, lines, latest } = page;
  const may = mayDo(actor, 'take');
  return (
    <>
      <MoneyTabs here="Bank" />
      <div className="mx-auto max-w-[1440px] px-4 pb-8 sm:px-7">
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-3 pt-2">
          <h1 className="title-screen">{latest?.to ? dayHeading(latest.to, business.deskLocale) : 'Bank'}</h1>
          <p className="min-w-0 flex-1 font-serif text-[16px]/6 max-sm:basis-full">{shown ? waiting(page) : ''}</p>
          {accounts.length > 1
            ? accounts.map((one) => {
                const isShown = one === shown;
                const words = `·${one.account.slice(-4)} ${one.currency}${one.open > 0 ? `, ${one.open}` : ''}`;
                return isShown ? (
                  <b key={words} className="font-semibold">
                    {words}
                  </b>
                ) : (
                  <Link
                    key={words}
                    className="link"
                    href={`/money/bank?account=${one.account}&currency=${one.currency}` as Route}
                  >
                    {words}
                  </Link>
                );
              })
            : null}
          {may ? <FetchStatements /> : null}
          {may ? <ImportStatement locale={business.deskLocale} /> : null}
        </div>
        <Troubles page={page} />
        {shown ? (
          <BankDesk
            key={`${shown.account} ${shown.currency}`}
            lines={lines.map((line) => jsonLine(line, business))}
            account={shown.account}
            currency={shown.currency}
            locale={business.deskLocale}
            may={may}
            older={
              page.olderMatched
                ? `/money/bank?account=${shown.account}&currency=${shown.currency}&matched=${page.olderMatched}`
                : null
            }
          />
        ) : (
          <Empty words="No statement yet. Import one of the bank (camt.053, MT940, OFX or CSV): its lines show here beside what they are for." />
        )}
        <Strip page={page} />
        <Rules page={page} may={may} />
      </div>
    </>
  );
}
