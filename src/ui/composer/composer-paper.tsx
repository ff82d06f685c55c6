'use client';
import { sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { asFront } from '@/core/front/front';
import { dueDate } from '@/core/invoice/due';
import type { PaperReading } from '@/core/invoice/read-paper';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { Paper } from '@/core/paper/paper';
import type { Figure as AskedFigure } from '@/core/tally/working';
import { FrontFields } from '../parts/front-fields';
import { ComposerLines } from './composer-lines';
import type { ComposerProps } from './composer-props';
import { PaperAfter } from './paper-after';
import { PaperExtras } from './paper-extras';
import { PaperHead } from './paper-head';
import { PaperLetterhead } from './paper-letterhead';
import { PaperSums } from './paper-sums';
import type { ShownProblems } from './problems';
import { SampleLines } from './sample-lines';
import type { useLines } from './use-lines';

/** The smallest card payment in a currency, in words; empty where there is none. */
function smallestWords({ smallestPayments, locale }: ComposerProps, currency: string): string {
  const minor = smallestPayments[currency] ?? 0;
  return minor > 1 ? moneyText(money(BigInt(minor), currency), locale) : '';
}

/** The paper that the customer gets, typed into in its places. */
export function ComposerPaper({
  setting,
  paper,
  reading,
  problems,
  customer,
  currency,
  issuedOn,
  fixed,
  lines,
  asked,
  line,
  onPick,
  onMany,
  onChange,
  onAsk,
  onLine,
  onKeepLine,
}: {
  /** What the business and its settings give. */
  setting: ComposerProps;
  paper: Paper;
  reading: PaperReading;
  problems: ShownProblems;
  customer: Customer | null;
  currency: string;
  issuedOn: CalendarDate;
  /** Whether a sent invoice is changed. */
  fixed: boolean;
  lines: ReturnType<typeof useLines>;
  /** The figure whose tally is shown, and the line, where it is one's. */
  asked: AskedFigure;
  line: string;
  onPick: (customer: Customer) => void;
  /** The same to many customers. */
  onMany: () => void;
  onChange: (part: Partial<Paper>) => void;
  onAsk: (figure: AskedFigure) => void;
  onLine: (line: string) => void;
  onKeepLine: (line: string) => Promise<void>;
}) {
  const front = asFront(setting.house, paper);
  return (
    <form
      className="sheet px-4 pb-5 pt-5 sm:px-8"
      onSubmit={(event) => event.preventDefault()}
      aria-label="The invoice"
    >
      <fieldset disabled={!setting.mayAsk} className="min-w-0">
        <legend className="sr-only">What the customer gets</legend>
        <PaperLetterhead seller={sellerOf(front)} logo={front.logoId ? `/files/own/${front.logoId}` : null} />
        <FrontFields
          look="blank"
          className="pb-3 sm:pl-[34px]"
          house={setting.house}
          chosen={paper}
          disabled={fixed}
          onChange={onChange}
        />
        <PaperHead
          paper={paper}
          customer={customer}
          problems={problems}
          today={issuedOn}
          locale={setting.locale}
          home={setting.house.country}
          fixed={fixed}
          asksAtOnce={setting.byKey === true && setting.draft.revision === 0 && setting.draft.paper.customerId === null}
          onCustomer={(one) => {
            onPick(one);
            onChange({ customerId: one.id, ...(one.due && one.id !== paper.customerId ? { due: one.due } : {}) });
          }}
          onMany={onMany}
          onChange={onChange}
        />
        <PaperExtras
          paper={paper}
          problems={problems}
          series={setting.series}
          currency={currency}
          pricesIncludeTax={setting.pricesIncludeTax}
          fixed={fixed}
          onChange={onChange}
        />

        <ComposerLines
          paper={paper}
          reading={reading}
          problems={problems}
          taxes={setting.taxes}
          lines={lines}
          chosen={line}
          locale={setting.locale}
          onTally={onLine}
          onKeep={onKeepLine}
        />
        {paper.sample && !fixed ? (
          <SampleLines
            written={paper.lines.map(({ what }) => what.trim())}
            currency={reading.document.currency}
            locale={setting.locale}
            onUse={(sample) => lines.addWritten({ ...sample, id: crypto.randomUUID() }, 'what')}
            onDiscard={() => onChange({ sample: false })}
          />
        ) : null}
        <div className="grid gap-x-8 gap-y-4 pb-5 pt-2 sm:grid-cols-[1fr_1.05fr] sm:pl-[34px]">
          <div>
            <label className="label" htmlFor="note">
              Words to the customer
            </label>
            <textarea
              id="note"
              rows={3}
              maxLength={4000}
              placeholder="none"
              className="blank resize-none italic [field-sizing:content]"
              value={paper.note}
              onChange={(event) => onChange({ note: event.target.value })}
            />
          </div>
          <PaperSums
            paper={paper}
            reading={reading}
            problems={problems}
            taxes={setting.taxes}
            asked={asked}
            locale={setting.locale}
            onAsk={onAsk}
            onChange={onChange}
          />
        </div>
        <PaperAfter
          paper={paper}
          problems={problems}
          terms={setting.terms}
          usualReminders={setting.usualReminders}
          dueOn={dueDate(paper.due, issuedOn)}
          today={setting.today}
          locale={setting.locale}
          hasAccount={setting.hasAccount}
          smallest={smallestWords(setting, reading.document.currency)}
          cardsOpen={setting.cardsOpen}
          onChange={onChange}
        />
      </fieldset>
    </form>
  );
}
