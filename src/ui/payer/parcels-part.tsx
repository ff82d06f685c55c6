import { longDate } from '@/core/dates/date-text';
import type { CustomerState, CustomersFetched, CustomersParcel } from '@/core/parcel/shipment';
import { wordsOf } from '@/core/words/words';

const COLOUR: Partial<Record<CustomerState, string>> = {
  delivered: 'text-leaf',
  late: 'text-ochre',
  trouble: 'text-brick',
  waiting: 'text-ochre',
  back: 'text-ochre',
};

/** Where what somebody bought is, parcel by parcel, in their language. */
export function ParcelsPart({
  parcels,
  counter,
  restFollows,
  locale,
}: {
  parcels: readonly CustomersParcel[];
  counter: CustomersFetched;
  restFollows: boolean;
  locale: string;
}) {
  if (parcels.length + counter.waits.length + counter.fetched.length === 0) return null;
  const { parcel: words, digital } = wordsOf(locale);
  return (
    <section className="mt-6" aria-label={words.heading}>
      <h2 className="font-serif text-[17px] font-semibold">{words.heading}</h2>
      <ul>
        {parcels.map((parcel, at) => {
          const when =
            parcel.state === 'delivered'
              ? [
                  parcel.arrivedOn ? words.arrived(longDate(parcel.arrivedOn, locale)) : '',
                  parcel.takenBy ? words.taken(parcel.takenBy) : '',
                ]
              : parcel.promisedOn
                ? [
                    parcel.state === 'late'
                      ? words.expectedWas(longDate(parcel.promisedOn, locale))
                      : words.expected(longDate(parcel.promisedOn, locale)),
                    parcel.lastPlace ? words.lastSeen(parcel.lastPlace) : '',
                  ]
                : [];
          return (
            <li key={at} className="border-b border-rule py-2.5 text-[15px]/[22px]">
              {parcels.length > 1 ? (
                <span className="block text-[14px] text-soft">{words.parcel(at + 1, parcels.length)}</span>
              ) : null}
              <b className={`font-semibold ${COLOUR[parcel.state] ?? ''}`}>{words.states[parcel.state]}</b>
              {when.filter(Boolean).map((line) => (
                <span key={line} className="block">
                  {line}
                </span>
              ))}
              <span className="block text-[14px] text-soft">
                {parcel.lines
                  .map(({ what, quantity }) => (quantity === '1' ? what : `${what}, ${quantity}`))
                  .join('; ')}
              </span>
              {parcel.number ? (
                <span className="block text-[14px] text-soft">
                  {words.by(parcel.service)}, {words.number.toLocaleLowerCase(locale)} {parcel.number}
                </span>
              ) : null}
            </li>
          );
        })}
        {counter.fetched.map(({ on, name, what }) => (
          <li key={`${on} ${name} ${what.join()}`} className="border-b border-rule py-2.5 text-[15px]/[22px]">
            <b className="font-semibold text-leaf">{digital.fetched(longDate(on, locale), name)}</b>
            <span className="block text-[14px] text-soft">{what.join('; ')}</span>
          </li>
        ))}
        {counter.waits.length > 0 ? (
          <li className="border-b border-rule py-2.5 text-[15px]/[22px]">
            <b className="font-semibold text-ochre">{digital.toFetch}</b>
            <span className="block text-[14px] text-soft">
              {counter.waits.map(({ what, quantity }) => (quantity === '1' ? what : `${what}, ${quantity}`)).join('; ')}
            </span>
          </li>
        ) : null}
      </ul>
      {restFollows ? <p className="pt-2 text-[15px]/[22px] text-soft">{words.notYet}</p> : null}
    </section>
  );
}
