'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { homePlace, sellerOf } from '@/core/business/business';
import { shortDate } from '@/core/dates/date-text';
import { asFront } from '@/core/front/front';

import { dueDate, issueDate } from '@/core/invoice/due';
import { seriesFor } from '@/core/invoice/numbering';
import { readPaper } from '@/core/invoice/read-paper';
import { sendingProblems } from '@/core/invoice/sending';
import type { Paper } from '@/core/paper/paper';
import { type Figure as AskedFigure, working } from '@/core/tally/working';
import { localeFor } from '@/core/words/words';
import { toFigures } from '../house/confirm-form';
import { OrBeginWith } from '../house/or-begin-with';
import { Button } from '../kit/button';
import { sayTrouble } from '../kit/toasts';
import { ChangeDialog } from './change-dialog';
import { ComposerBar } from './composer-bar';
import { ComposerPaper } from './composer-paper';
import type { ComposerProps } from './composer-props';
import { ComposerSide } from './composer-side';
import { DraftMenu } from './draft-menu';
import { EInvoiceNote } from './e-invoice-note';
import { NameDialog } from './name-dialog';
import { shownProblems } from './problems';
import { SendDialog, usualMailText } from './send-dialog';
import { ThrowAway } from './throw-away';
import { useDraft } from './use-draft';
import { focusField, useLines } from './use-lines';
import { useSendKey } from './use-send-key';
import { useSending } from './use-sending';
import { useSentPaper } from './use-sent-paper';

/** The composer: one types on the paper that the customer will get; beside it the tally of any figure, and the proof. */
export function Composer(props: ComposerProps) {
  const { id, taxes, locale, today, mayAsk, sentVersion } = props;
  const fixed = sentVersion !== null;
  const isUnconfirmed = props.first?.steps.some(({ step, state }) => step === 'mail' && state !== 'open') ?? false;
  const router = useRouter();
  const toSheet = useCallback(() => router.replace(`/ask/invoices/${id}` as Route), [router, id]);
  const onGone = useCallback(
    (why: 'sent' | 'thrown-away') => (why === 'sent' ? toSheet() : router.replace('/ask/invoices')),
    [router, toSheet],
  );
  const draft = useDraft(id, props.draft, onGone, fixed);
  const { paper, change, keeping, revision, flush } = draft;
  const [picked, setPicked] = useState(props.customer);
  const customer = [picked, props.customer].find((one) => one && one.id === paper.customerId) ?? null;
  // Chosen just before a reload: the page was made before the choice was kept, and does not know them yet.
  const unknown = paper.customerId !== null && !customer && keeping.state === 'kept';
  useEffect(() => {
    if (unknown) router.refresh();
  }, [unknown, router]);
  const [asked, setAsked] = useState<AskedFigure | { of: 'line-id'; id: string }>({ of: 'total' });
  const [tried, setTried] = useState(false);
  const [discarding, setDiscarding] = useState(false);
  const [naming, setNaming] = useState(false);

  const currency = customer?.currency || props.currency;
  const { tradingNameId, locationId } = paper;
  const front = useMemo(
    () => asFront(props.house, { tradingNameId, locationId }),
    [props.house, tradingNameId, locationId],
  );
  const reading = useMemo(
    () =>
      readPaper(paper, {
        taxes,
        currency,
        pricesIncludeTax: props.pricesIncludeTax,
        home: homePlace(front),
        customer,
      }),
    [paper, taxes, currency, props.pricesIncludeTax, front, customer],
  );
  const { tally, document } = reading;
  const problems = useMemo(() => shownProblems(paper, reading, today, tried), [paper, reading, today, tried]);
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
  const toMany = async () => {
    if (await flush()) router.push(`/ask/bulk/new?from=${id}` as Route);
  };
  const keepLine = useCallback(
    (lineId: string) => keepAsItem(lineId, lines.changeLine),
    [keepAsItem, lines.changeLine],
  );

  const askToSend = useCallback(() => {
    setTried(true);
    const [problem] = sendingProblems(paper, reading, fixed ? issueDate(paper, today) : today);
    if (problem) {
      sayTrouble(problem.words);
      return focusField(problem.field === 'lines' ? `${paper.lines[0]?.id}.what` : problem.field);
    }
    if (!isUnconfirmed) return ask();
    sayTrouble('Sending opens when your address is confirmed: type the six figures of the mail.');
    toFigures();
  }, [paper, reading, today, fixed, ask, isUnconfirmed]);

  useSendKey(askToSend, mayAsk);

  const issuedOn = issueDate(paper, today);
  const due = dueDate(paper.due, issuedOn);
  const customerLocale = localeFor(customer?.language ?? '', props.house.paperLocale, customer?.billing.country ?? '');
  const number = paper.number.trim() || (props.nextNumbers[seriesFor(props.series, props.house, paper).name] ?? '');
  return (
    <div className="mx-auto max-w-[1440px] px-4 sm:px-7">
      <ComposerBar
        id={id}
        number={number}
        sentVersion={sentVersion}
        keeping={keeping}
        zone={props.zone}
        mayAsk={mayAsk}
        menu={
          <DraftMenu
            id={id}
            customer={customer}
            templates={props.templates}
            recurring={props.recurring}
            hasFiles={paper.files.length > 0}
            flush={flush}
            onName={() => setNaming(true)}
            onAgain={(from) => void startAgain(from)}
            onFromNextOn={(repeat) => void sayFromNextOn(repeat)}
          />
        }
        onDiscard={() => setDiscarding(true)}
        onSend={askToSend}
      />
      {props.planned ? (
        <p className="mb-3 flex flex-wrap items-baseline gap-x-3 bg-dusk-tint px-3.5 py-2">
          <span>
            It goes out by itself on <b className="font-semibold">{props.planned}</b>. Any change takes that away.
          </span>
          {mayAsk ? (
            <Button look="link" onClick={() => void dropPlan()}>
              Not any more
            </Button>
          ) : null}
        </p>
      ) : null}

      {props.first?.isFirst && paper.sample && !fixed ? (
        <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
          <p className="font-serif text-[18px]/[26px]">
            Your first invoice is half written: say who pays, and what for.
          </p>
          <OrBeginWith />
        </div>
      ) : null}
      <div className="grid items-start gap-7 pb-10 lg:grid-cols-[minmax(0,1fr)_minmax(340px,432px)]">
        <ComposerPaper
          setting={props}
          paper={paper}
          reading={reading}
          problems={problems}
          customer={customer}
          currency={currency}
          issuedOn={issuedOn}
          fixed={fixed}
          lines={lines}
          asked={figureAsked}
          line={asked.of === 'line-id' ? asked.id : ''}
          onPick={setPicked}
          onMany={() => void toMany()}
          onChange={set}
          onAsk={setAsked}
          onLine={tallyLine}
          onKeepLine={keepLine}
        />
        <ComposerSide
          id={id}
          working={shownWorking}
          ofTotal={figureAsked.of === 'total'}
          fixed={fixed}
          revision={revision}
          who={customer?.name.split(' ')[0] ?? 'the customer'}
          currency={document.currency}
          locale={locale}
          onTotal={() => setAsked({ of: 'total' })}
          first={fixed ? null : props.first}
        />
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
        note={
          <EInvoiceNote
            paper={paper}
            reading={reading}
            seller={sellerOf(front)}
            customer={customer}
            hasAccount={props.hasAccount}
            number={number}
            issuedOn={issuedOn}
          />
        }
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
        title="Save as a template"
        about="Lines, texts and terms are saved. {month}, {year} and {next month} are filled in when it is used."
        label="Name"
        action="Save template"
        onClose={() => setNaming(false)}
        files={paper.files.length}
        onName={async (name, withFiles) => {
          const trouble = await keepTemplate(name, withFiles);
          if (!trouble) setNaming(false);
          return trouble;
        }}
      />
      <ThrowAway open={discarding} onClose={() => setDiscarding(false)} onSure={() => void discard()} />
    </div>
  );
}
