import type { Route } from 'next';
import Link from 'next/link';
import { daysBetween } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { MESSAGE_KINDS, type MessageKind } from '@/core/message/kinds';
import { jsonMinor } from '@/core/money/money';
import { CLAIM_WORDS } from '@/core/parcel/claim';
import { numberWord } from '@/core/parcel/lot';
import { measuresOf, sizeText, weightText } from '@/core/parcel/measure';
import { spacedNumber } from '@/core/parcel/number';
import type { LabelSheet } from '@/core/parcel/profile';
import { LOOK_WORDS, SETTLED_WORDS, STATE_WORDS } from '@/core/parcel/shipment';
import { wayPicture } from '@/core/parcel/way';
import type { ShipmentClaim, ShipmentSheet, shipmentCosts } from '@/flows/parcel/shipments';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { Hand } from '@/ui/shipment/hand';
import { NoticeActions } from '@/ui/shipment/notice-actions';
import { ShipmentActions } from '@/ui/shipment/shipment-actions';
import { Stairs } from '@/ui/shipment/stairs';
import { TroubleActions } from '@/ui/shipment/trouble-actions';
import { Way } from '@/ui/shipment/way';
import { Timeline } from '@/ui/timeline';

type Costs = Awaited<ReturnType<typeof shipmentCosts>>;

/** What the heading says: how late, what state, and what that comes to. */
function heading({ parcel, look, today }: ShipmentSheet): string {
  if (look === 'late' && parcel.promisedOn) {
    const days = daysBetween(parcel.promisedOn, today);
    return days === 1 ? 'A day late' : `${numberWord(days).replace(/^./, (one) => one.toUpperCase())} days late`;
  }
  return look ? LOOK_WORDS[look] : STATE_WORDS[parcel.state];
}

/** What can be done about one that needs a look, in words. */
const ADVICE: Readonly<Record<NonNullable<ShipmentSheet['look']>, string>> = {
  late: 'The carrier has it and is late. Whoever waits is told by mail; ask the carrier where it is if it lies still.',
  lost: 'The carrier does not find it. Send another, or give back what was paid; what is insured is claimed from the carrier.',
  damaged: 'The carrier says that it is damaged. Ask whoever gets it what has arrived, and send again what is broken.',
  back: 'It was not taken, and is on its way back. Ask for the right address before it is sent again.',
  returned: 'It has come back. Look at what is in it, and send it again or give back what was paid.',
  waiting: 'Nobody was there: it waits to be fetched. Whoever it is for may need a word.',
  'not-handed-over': 'Its mailing date is over and the carrier has not scanned it. Hand it over, or move its date.',
};

/** Who took it, where and when, with their hand. */
function Proof({ sheet: { parcel, business } }: { sheet: ShipmentSheet }) {
  const { proof } = parcel;
  if (!proof) return null;
  const at = new Date(proof.at);
  return (
    <section
      aria-label="Proof of delivery"
      className="sheet mt-4 grid grid-cols-[minmax(0,1fr)_130px] items-center gap-4 px-4 py-3"
    >
      <p className="text-[12.5px]/[19px]">
        <b className="private font-semibold">Signed by {proof.name}</b>
        <span className="block text-soft">
          {shortDate(dateInZone(at, business.zone), business.deskLocale, { weekday: true })}{' '}
          {clockTime(at, business.zone)}
        </span>
        <span className="private block text-soft">{proof.place}</span>
      </p>
      <Hand name={proof.name} strokes={proof.strokes} />
    </section>
  );
}

function Told({ sheet, mayPack }: { sheet: ShipmentSheet; mayPack: boolean }) {
  const { parcel, mails, tellAt, business, today } = sheet;
  const { deskLocale: locale, zone } = business;
  const when = (at: Date) => `${shortDate(dateInZone(at, zone), locale, { weekday: true })}, ${clockTime(at, zone)}`;
  const told = mails.filter(({ kind }) => kind.startsWith('parcel-'));
  const open = parcel.notice !== 'told' && parcel.state !== 'voided';
  return (
    <section aria-label="Told" className="mt-5">
      <h2 className="title-section border-b border-ink pb-1 text-[16.5px]">{open ? 'Not told yet' : 'Told'}</h2>
      {open ? (
        <>
          <p className="document pt-2">
            {parcel.notice === 'held' ? (
              'The notice is held back: it goes out by hand only.'
            ) : parcel.notice === 'first-scan' ? (
              'The notice goes out with the first scan.'
            ) : (
              <>
                The notice goes out <b className="font-semibold text-dusk">{tellAt ? when(tellAt) : ''}</b>, the mailing
                date.
              </>
            )}
            {parcel.recipient.email ? '' : ' There is no e-mail address: nobody is told.'}
          </p>
          {mayPack ? (
            <NoticeActions ids={[parcel.id]} notice={parcel.notice} mailOn={parcel.mailOn} today={today} />
          ) : null}
        </>
      ) : (
        <ul>
          {told.map(({ kind, toAddress, state, at }) => (
            <li key={kind} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
              <span className="document">{MESSAGE_KINDS[kind as MessageKind].called}</span>
              <span className="private small text-soft">{toAddress}</span>
              <span
                className={`small ml-auto ${state === 'failed' || state === 'bounced' ? 'text-brick' : 'text-soft'}`}
              >
                {state === 'failed' || state === 'bounced' ? 'did not arrive' : when(at)}
              </span>
            </li>
          ))}
          {told.length === 0 ? <li className="document py-2 text-soft">Nobody was told by mail.</li> : null}
        </ul>
      )}
    </section>
  );
}

/** Whether the carrier can be asked to pay: it was not yet, or said no. */
const canClaim = ({ claim }: ShipmentClaim): boolean => claim === null || claim.state === 'refused';

/** What the carrier was asked for, and what it said. */
function Claimed({ claim, locale }: { claim: NonNullable<ShipmentClaim['claim']>; locale: string }) {
  const { state, words, currency, askedMinor, paidMinor } = claim;
  return (
    <div className="document mb-3">
      <Leader label={`Asked of the carrier. ${CLAIM_WORDS[state]}`}>
        <Amount minor={jsonMinor(paidMinor ?? askedMinor)} currency={currency} locale={locale} />
      </Leader>
      {words && state !== 'paid' ? <p className="small text-soft">{words}.</p> : null}
    </div>
  );
}

/** A shipment: where it is, what is done about it, what is in it, what it cost, who was told. */
export function ShipmentView({
  sheet,
  costs,
  claim,
  setting,
  mayPack,
  mayClaim,
  mayGiveBack,
  sees,
}: {
  sheet: ShipmentSheet;
  costs: Costs | null;
  claim: ShipmentClaim | null;
  setting: { sheet: LabelSheet; own: { widthMm: number; heightMm: number } };
  mayPack: boolean;
  mayClaim: boolean;
  mayGiveBack: boolean;
  sees: boolean;
}) {
  const { parcel, look, business, today, sales, way, scans, lines } = sheet;
  const { deskLocale: locale, zone } = business;
  const day = (on: Parameters<typeof shortDate>[0]) => shortDate(on, locale, { weekday: true });
  const measures = measuresOf(business.country);
  const ended = parcel.endedAt !== null;
  const { spec, serviceName = '', profile = '' } = parcel.label ?? {};
  const picture = wayPicture(way, {
    begun: { place: 'Label bought', at: parcel.boughtAt ?? parcel.madeAt },
    door: `${parcel.recipient.address.city || 'The'} door`,
    promisedOn: parcel.promisedOn,
    now: sheet.now,
    zone,
    ended,
  });
  const lastSeen = scans.at(-1);
  const bad = look === 'late' || look === 'lost' || look === 'damaged';
  return (
    <div className="grid gap-6 xl:grid-cols-[minmax(0,580px)_248px]">
      <article className="sheet min-w-0 px-[26px] pb-5" aria-label={`Shipment to ${parcel.recipient.name}`}>
        <div className="grid grid-cols-[60px_minmax(0,1fr)] items-center pb-3 pt-4">
          <Stairs state={parcel.state} look={look} size={46} />
          <div>
            <h1 className="font-serif text-[28px]/[34px] font-medium">
              {heading(sheet)} <span className="private text-[19px] text-soft">for {parcel.recipient.name}</span>
            </h1>
            <p>
              {parcel.state === 'delivered' && lastSeen
                ? `Arrived ${day(dateInZone(lastSeen.at, zone))}, ${clockTime(lastSeen.at, zone)}.`
                : parcel.promisedOn
                  ? `Promised for ${day(parcel.promisedOn)}.`
                  : ''}
              {lastSeen && parcel.state !== 'delivered'
                ? ` Last seen ${day(dateInZone(lastSeen.at, zone))}${lastSeen.place ? `: ${lastSeen.place}` : ''}.`
                : ''}
              {lastSeen?.words ? ` ${lastSeen.words}.` : ''}
            </p>
          </div>
        </div>
        {look ? (
          <p className={`document mb-3 px-3.5 py-2.5 ${bad ? 'bg-brick-tint' : 'bg-ochre-tint'}`}>{ADVICE[look]}</p>
        ) : null}
        {parcel.settled ? <p className="document mb-3 bg-wash px-3.5 py-2.5">{SETTLED_WORDS[parcel.settled]}</p> : null}
        {claim?.claim ? <Claimed claim={claim.claim} locale={locale} /> : null}
        {look || (claim && claim.mostMinor !== null && canClaim(claim)) ? (
          <TroubleActions
            id={parcel.id}
            look={look}
            claimMost={claim && canClaim(claim) && claim.mostMinor !== null ? jsonMinor(claim.mostMinor) : null}
            currency={parcel.currency}
            paymentId={sheet.paymentId}
            may={{ pack: mayPack, claim: mayClaim, giveBack: mayGiveBack }}
          />
        ) : null}
        {parcel.state === 'voided' ? (
          <p className="document py-2 text-soft">
            Its label was given back; what was in it waits to be packed, or has gone otherwise.
          </p>
        ) : (
          <Way way={picture} locale={locale} zone={zone} />
        )}
        <Proof sheet={sheet} />
        <section aria-label="In it" className="mt-5">
          <h2 className="title-section border-b border-ink pb-1 text-[16.5px]">In it</h2>
          {parcel.lines.map((line) => {
            const sale = sales.find((one) => one.parcelId === parcel.id && (one.invoiceId || one.orderId));
            return (
              <Leader
                key={line.place}
                label={
                  <span className="private">
                    {line.quantity === '1' ? line.what : `${line.what}, ${line.quantity}`}
                  </span>
                }
                className="document border-b border-rule py-1"
              >
                {line.place === 0 && sale ? (
                  sale.invoiceId && sees ? (
                    <Link className="link" href={`/ask/invoices/${sale.invoiceId}` as Route}>
                      Invoice {sale.number}
                    </Link>
                  ) : (
                    `${sale.invoiceId ? 'Invoice' : 'Order'} ${sale.number}`
                  )
                ) : null}
              </Leader>
            );
          })}
          <Leader
            label={[profile, spec ? sizeText(spec, measures, locale) : ''].filter(Boolean).join(', ')}
            className="document border-b border-rule py-1"
          >
            {[spec ? weightText(spec.grams, measures, locale) : '', serviceName].filter(Boolean).join(' · ')}
          </Leader>
          {costs && costs.totalMinor !== null ? (
            <>
              <Leader label="Postage, packing and insurance" className="document border-b border-rule py-1">
                <Amount minor={jsonMinor(costs.totalMinor)} currency={costs.currency} locale={locale} />
              </Leader>
              {costs.paidMinor !== null ? (
                <Leader label="Paid for delivery" className="document border-b border-rule py-1">
                  <Figure minor={jsonMinor(costs.paidMinor)} currency={costs.currency} locale={locale} />
                  {costs.paidMinor === costs.totalMinor ? (
                    <span className="ml-2 text-soft">even</span>
                  ) : (
                    <span className={`ml-2 ${costs.paidMinor < costs.totalMinor ? 'text-ochre' : 'text-leaf'}`}>
                      <Figure
                        minor={jsonMinor(
                          costs.paidMinor < costs.totalMinor
                            ? costs.totalMinor - costs.paidMinor
                            : costs.paidMinor - costs.totalMinor,
                        )}
                        currency={costs.currency}
                        locale={locale}
                      />{' '}
                      {costs.paidMinor < costs.totalMinor ? 'short' : 'over'}
                    </span>
                  )}
                </Leader>
              ) : null}
            </>
          ) : null}
          <p className="private small pt-2 text-soft">
            {[
              parcel.recipient.name,
              ...parcel.recipient.address.lines,
              parcel.recipient.address.city,
              parcel.recipient.address.postalCode,
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
        </section>
        <Told sheet={sheet} mayPack={mayPack} />
        <p className="mt-4 flex flex-wrap items-baseline gap-x-5 gap-y-2 border-t border-rule pt-3">
          <span className="private small flex-1 text-soft">No. {spacedNumber(parcel.number)}</span>
          {mayPack ? (
            <ShipmentActions
              id={parcel.id}
              name={parcel.recipient.name}
              canGiveBack={sheet.canGiveBack}
              hasLabel={parcel.state !== 'voided'}
              customsForm={parcel.label?.customsForm ?? ''}
              sheet={setting.sheet}
              own={setting.own}
            />
          ) : null}
          {sales[0]?.linkToken && sees ? (
            <a
              className="link"
              href={`/${sales[0].invoiceId ? 'i' : 'o'}/${sales[0].linkToken}`}
              target="_blank"
              rel="noreferrer"
            >
              See as customer
            </a>
          ) : null}
        </p>
      </article>
      <Timeline lines={lines} currency={parcel.currency} locale={locale} zone={zone} today={today} />
    </div>
  );
}
