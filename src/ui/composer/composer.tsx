'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dueDate, issueDate } from '@/core/invoice/due';
import type { NumberSeries } from '@/core/invoice/numbering';
import type { Seller } from '@/core/invoice/printed';
import { readPaper } from '@/core/invoice/read-paper';
import { sendingProblems } from '@/core/invoice/sending';
import type { Paper } from '@/core/paper/paper';
import { type Figure as AskedFigure, working } from '@/core/tally/working';
import type { BusinessTax } from '@/core/tax/business-tax';
import type { Place } from '@/core/tax/tax-rules';
import { localeFor } from '@/core/words/words';
import { ContactLine } from '../contact-line';
import { Dialog } from '../dialog';
import { FieldError } from '../field';
import { Rosette } from '../rosette';
import { SortableList } from '../sortable-list';
import { sayTrouble } from '../toasts';
import { WorkingSteps } from '../working';
import { ChangeDialog } from './change-dialog';
import { DraftMenu } from './draft-menu';
import { ItemPicker } from './item-picker';
import { LINE_GRID, LineRow } from './line-row';
import { NameDialog } from './name-dialog';
import { PaperAfter, type TermsChoice } from './paper-after';
import { PaperExtras } from './paper-extras';
import { PaperHead } from './paper-head';
import { PaperSums } from './paper-sums';
import { shownProblems } from './problems';
import { ProofPane } from './proof-pane';
import { SendDialog, usualMailText } from './send-dialog';
import { type Keeping, useDraft } from './use-draft';
import { focusField, useLines } from './use-lines';
import { useSending } from './use-sending';
import { useSentPaper } from './use-sent-paper';
import { useStock } from './use-stock';

export type ComposerProps = {
  readonly id: string;
  readonly paper: Paper;
  readonly revision: number;
  readonly customer: Customer | null;
  readonly taxes: readonly BusinessTax[];
  readonly currency: string;
  readonly locale: string;
  readonly zone: string;
  readonly today: CalendarDate;
  readonly nextNumber: string;
  readonly series: readonly NumberSeries[];
  readonly terms: readonly TermsChoice[];
  readonly templates: readonly { readonly id: string; readonly name: string }[];
  /** What comes again to this customer. */
  readonly recurring: readonly { readonly id: string; readonly name: string }[];
  /** The customer's link; it opens once the invoice is sent. */
  readonly link: string;
  readonly pricesIncludeTax: boolean;
  readonly seller: Seller;
  readonly logo: string | null;
  /** The business's country, and its own place for taxes. */
  readonly home: string;
  readonly homePlace: Place;
  readonly usualReminders: readonly number[];
  readonly mailTexts: Readonly<Record<string, string>>;
  readonly hasAccount: boolean;
  readonly ownEmail: string;
  /** When it goes out by itself, in words; empty where it does not. */
  readonly planned: string;
  /** A sent invoice that is changed, with the version that was read; null for a draft. */
  readonly sentVersion: number | null;
  readonly mayAsk: boolean;
};

const NO_PROBLEMS: Readonly<Record<string, string>> = {};

/** Whether keeping is done, in a word or two. */
function KeepingWords({ keeping, zone }: { keeping: Keeping; zone: string }) {
  if (keeping.state === 'keeping') return <>keeping …</>;
  if (keeping.state === 'here-only')
    return <span className="font-medium text-ochre">kept on this computer only. {keeping.words}</span>;
  return keeping.at ? <>kept {clockTime(keeping.at, zone)}</> : <>nothing changed yet</>;
}

/** The composer: one types on the paper that the customer will get; beside it the tally of any figure, and the proof. */
export function Composer(props: ComposerProps) {
  const { id, taxes, locale, today, seller, mayAsk, sentVersion } = props;
  const fixed = sentVersion !== null;
  const router = useRouter();
  const toSheet = useCallback(() => router.replace(`/ask/invoices/${id}` as Route), [router, id]);
  const onGone = useCallback(
    (why: 'sent' | 'thrown-away') => (why === 'sent' ? toSheet() : router.replace('/ask/invoices')),
    [router, toSheet],
  );
  const draft = useDraft(id, props.paper, props.revision, onGone, fixed);
  const { paper, change, keeping, revision, flush } = draft;
  const [picked, setPicked] = useState(props.customer);
  const customer = [picked, props.customer].find((one) => one && one.id === paper.customerId) ?? null;
  const [asked, setAsked] = useState<AskedFigure | { of: 'line-id'; id: string }>({ of: 'total' });
  const [tried, setTried] = useState(false);
  const [discarding, setDiscarding] = useState(false);
  const [naming, setNaming] = useState(false);
  const [active, setActive] = useState('');

  const currency = customer?.currency || props.currency;
  const reading = useMemo(
    () =>
      readPaper(paper, {
        taxes,
        currency,
        pricesIncludeTax: props.pricesIncludeTax,
        home: props.homePlace,
        customer,
      }),
    [paper, taxes, currency, props.pricesIncludeTax, props.homePlace, customer],
  );
  const { tally, document } = reading;
  const problems = useMemo(() => shownProblems(paper, reading, today, tried), [paper, reading, today, tried]);
  const byLine = useMemo(
    () =>
      new Map(
        reading.counted.map((line, at) => [
          line.id,
          { net: tally.lines[at]?.net ?? null, taxIds: (document.lines[at]?.taxes ?? []).join(' ') },
        ]),
      ),
    [reading, tally, document],
  );
  const short = useStock(paper.lines);
  const figureAsked: AskedFigure =
    asked.of === 'line-id' ? { of: 'line', at: reading.counted.findIndex((line) => line.id === asked.id) } : asked;
  const names = reading.counted.map((line) => line.what);
  const shownWorking = working(document, tally, names, figureAsked);

  const set = useCallback((part: Partial<Paper>) => change((before) => ({ ...before, ...part })), [change]);
  const lines = useLines(paper, change);
  const tallyLine = useCallback((line: string) => setAsked({ of: 'line-id', id: line }), []);
  const { keepAsItem, keepTemplate, startAgain, trial, changeSent, sayFromNextOn } = useSentPaper(
    id,
    draft,
    document.currency,
    router,
  );
  const { sending, sendTrouble, ask, leave, sendIt, sendChange, discard, dropPlan } = useSending({
    id,
    link: props.link,
    customer: customer?.name ?? '',
    draft,
    change: (tell) => changeSent(sentVersion ?? 1, tell),
    toSheet,
  });
  const keepLine = useCallback(
    (lineId: string) => keepAsItem(lineId, lines.changeLine),
    [keepAsItem, lines.changeLine],
  );

  const askToSend = useCallback(() => {
    setTried(true);
    const [first] = sendingProblems(paper, reading, fixed ? issueDate(paper, today) : today);
    if (!first) return ask();
    sayTrouble(first.words);
    focusField(first.field === 'lines' ? `${paper.lines[0]?.id}.what` : first.field);
  }, [paper, reading, today, fixed, ask]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        (event.ctrlKey || event.metaKey) &&
        event.key === 'Enter' &&
        mayAsk &&
        !window.document.querySelector('[role="dialog"]')
      ) {
        event.preventDefault();
        askToSend();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [askToSend, mayAsk]);

  const issuedOn = issueDate(paper, today);
  const due = dueDate(paper.due, issuedOn);
  const customerLocale = localeFor(customer?.language ?? '', locale, customer?.billing.country ?? '');
  const number = paper.number.trim() || props.nextNumber;
  return (
    <div className="mx-auto max-w-[1440px] px-4 sm:px-7">
      <div className="flex min-h-[58px] flex-wrap items-center gap-x-3.5 gap-y-1 py-1.5">
        <Link href={(fixed ? `/ask/invoices/${id}` : '/ask/invoices') as Route} className="link">
          {fixed ? 'Back to the sheet' : 'Invoices'}
        </Link>
        <h1 className="font-serif text-[23px]/[30px] font-medium">
          {fixed ? `Change invoice ${number}` : `Invoice ${number}`}
        </h1>
        {fixed ? null : (
          <>
            <span className="inline-flex items-center gap-1.5 font-medium">
              <Rosette state="Draft" size={22} />
              Draft
            </span>
            <span className="small text-soft" aria-live="polite" data-keeping={keeping.state}>
              <KeepingWords keeping={keeping} zone={props.zone} />
            </span>
          </>
        )}
        <span className="flex-1" />
        {mayAsk && fixed ? (
          <button type="button" className="btn btn-go" onClick={askToSend}>
            Make it version {(sentVersion ?? 1) + 1}
          </button>
        ) : null}
        {mayAsk && !fixed ? (
          <>
            <DraftMenu
              id={id}
              customer={customer}
              templates={props.templates}
              recurring={props.recurring}
              flush={flush}
              onName={() => setNaming(true)}
              onAgain={(from) => void startAgain(from)}
              onFromNextOn={(repeat) => void sayFromNextOn(repeat)}
            />
            <button type="button" className="link" onClick={() => setDiscarding(true)}>
              Throw away
            </button>
            <button type="button" className="btn btn-go" onClick={askToSend}>
              Send invoice
            </button>
          </>
        ) : null}
        {mayAsk ? null : <span className="text-soft">You may look, not change.</span>}
      </div>
      {props.planned ? (
        <p className="mb-3 flex flex-wrap items-baseline gap-x-3 bg-dusk-tint px-3.5 py-2">
          <span>
            It goes out by itself on <b className="font-semibold">{props.planned}</b>. Any change takes that away.
          </span>
          {mayAsk ? (
            <button type="button" className="link" onClick={() => void dropPlan()}>
              Not any more
            </button>
          ) : null}
        </p>
      ) : null}

      <div className="grid items-start gap-7 pb-10 lg:grid-cols-[minmax(0,1fr)_minmax(340px,432px)]">
        <form
          className="sheet px-4 pb-5 pt-5 sm:px-8"
          onSubmit={(event) => event.preventDefault()}
          aria-label="The invoice"
        >
          <fieldset disabled={!mayAsk} className="min-w-0">
            <legend className="sr-only">What the customer gets</legend>
            <div className="flex flex-wrap items-baseline justify-between gap-x-4 pb-4 sm:pl-[34px]">
              {props.logo ? (
                // biome-ignore lint/performance/noImgElement: a picture of the business's own, already small
                <img src={props.logo} alt={seller.name} className="h-9 w-auto" />
              ) : (
                <b className="font-serif text-[19px]/6 font-semibold">{seller.name}</b>
              )}
              <ContactLine parts={[...seller.address, seller.phone]} />
            </div>
            <PaperHead
              paper={paper}
              customer={customer}
              problems={problems}
              today={issuedOn}
              locale={locale}
              home={props.home}
              fixed={fixed}
              onCustomer={(one) => {
                setPicked(one);
                set({
                  customerId: one.id,
                  ...(one.due && one.id !== paper.customerId ? { due: one.due } : {}),
                });
              }}
              onChange={set}
            />
            <PaperExtras
              paper={paper}
              problems={problems}
              series={props.series}
              currency={currency}
              pricesIncludeTax={props.pricesIncludeTax}
              fixed={fixed}
              onChange={set}
            />

            <div className={`${LINE_GRID} small hidden border-b border-ink pb-1 text-soft sm:grid`} aria-hidden="true">
              <span />
              <span>What</span>
              <span className="pr-2 text-right">How much</span>
              <span>Tax</span>
              <span className="pr-1 text-right">Amount</span>
            </div>
            <SortableList id="lines" label="Lines" ids={paper.lines.map((line) => line.id)} onMove={lines.moveLine}>
              {paper.lines.map((line, at) => (
                <LineRow
                  key={line.id}
                  line={line}
                  at={at}
                  net={byLine.get(line.id)?.net ?? null}
                  taxIds={byLine.get(line.id)?.taxIds ?? line.taxes.join(' ')}
                  problems={problems.byLine.get(line.id) ?? NO_PROBLEMS}
                  short={short.get(line.id)}
                  active={active === line.id}
                  chosen={asked.of === 'line-id' && asked.id === line.id}
                  taxes={taxes}
                  currency={document.currency}
                  locale={locale}
                  onChange={lines.changeLine}
                  onRemove={lines.removeLine}
                  onDuplicate={lines.duplicateLine}
                  onMove={lines.moveLine}
                  onPaste={lines.pasteInto}
                  onEnter={lines.enter}
                  onTally={tallyLine}
                  onActive={setActive}
                  onKeep={keepLine}
                />
              ))}
            </SortableList>
            <div className="flex flex-wrap gap-5 py-2.5 sm:pl-[34px]">
              <button type="button" className="link" onClick={() => lines.addLine('hour')}>
                Add hours
              </button>
              <button type="button" className="link" onClick={() => lines.addLine('piece')}>
                Add goods
              </button>
              <ItemPicker
                currency={document.currency}
                onChoose={(item, option) => lines.addItem(item, option, document.currency)}
              />
              {problems.of('lines') ? <FieldError>{problems.of('lines')}</FieldError> : null}
            </div>

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
                  onChange={(event) => set({ note: event.target.value })}
                />
              </div>
              <PaperSums
                paper={paper}
                reading={reading}
                problems={problems}
                taxes={taxes}
                asked={figureAsked}
                locale={locale}
                onAsk={setAsked}
                onChange={set}
              />
            </div>
            <PaperAfter
              paper={paper}
              problems={problems}
              terms={props.terms}
              usualReminders={props.usualReminders}
              dueOn={due}
              today={today}
              locale={locale}
              hasAccount={props.hasAccount}
              onChange={set}
            />
          </fieldset>
        </form>

        <div className="grid gap-6">
          <section aria-label="Tally" aria-live="off">
            <div className="flex h-[32px] items-baseline justify-between border-b border-ink">
              <h2 className="title-section private truncate">Tally: {shownWorking.title}</h2>
              {figureAsked.of === 'total' ? null : (
                <button type="button" className="link link-small" onClick={() => setAsked({ of: 'total' })}>
                  Of the total
                </button>
              )}
            </div>
            <div className="max-h-[250px] overflow-auto pt-2" tabIndex={0} role="group" aria-label="Steps of the tally">
              <WorkingSteps working={shownWorking} currency={document.currency} locale={locale} />
            </div>
          </section>
          {fixed ? (
            <p className="border-t border-ink pt-3 font-serif text-[15.5px]/[22px]">
              What was paid stays paid. The customer’s page says that the invoice has changed, and the earlier version
              is kept.
            </p>
          ) : (
            <ProofPane id={id} revision={revision} who={customer?.name.split(' ')[0] ?? 'the customer'} />
          )}
        </div>
      </div>

      <SendDialog
        open={sending !== 'no' && !fixed}
        busy={sending === 'busy'}
        trouble={sendTrouble}
        number={number}
        customer={customer}
        totalMinor={tally.total}
        currency={document.currency}
        locale={locale}
        dueText={due ? shortDate(due, locale, { weekday: true, year: true }) : ''}
        mailText={usualMailText(customerLocale, props.mailTexts)}
        onClose={leave}
        onSend={(how, on) => void sendIt(how, on)}
        onTrial={() => void trial(props.ownEmail)}
      />
      {fixed ? (
        <ChangeDialog
          open={sending !== 'no'}
          busy={sending === 'busy'}
          number={number}
          onClose={leave}
          onSure={sendChange}
        />
      ) : null}
      <NameDialog
        open={naming}
        title="Keep as a template"
        about="Lines, texts and terms are kept. {month}, {year} and {next month} are filled in when it is used."
        label="Name"
        action="Keep template"
        onClose={() => setNaming(false)}
        onName={async (name) => {
          const trouble = await keepTemplate(name);
          if (!trouble) setNaming(false);
          return trouble;
        }}
      />
      <Dialog
        open={discarding}
        onOpenChange={setDiscarding}
        title="Throw this draft away?"
        about="It has no number yet, so none will be missing."
      >
        <div className="flex justify-end gap-3">
          <button type="button" className="btn" onClick={() => setDiscarding(false)}>
            Keep it
          </button>
          <button type="button" className="btn btn-sure" onClick={() => void discard()}>
            Throw away
          </button>
        </div>
      </Dialog>
    </div>
  );
}
