'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Empty } from '../kit/empty';
import { SelectField } from '../kit/select';

import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';

type Donor = {
  readonly customerId: string;
  readonly name: string;
  readonly email: string;
  readonly currency: string;
  readonly count: number;
  readonly minor: number;
  /** The day on which the letter went out; empty where it has not. */
  readonly sent: string;
};

/** Everybody who gave something in a year, and the letters over it: read one by one, mailed to all who are ticked. */
export function GiftLetters({
  year,
  years,
  donors,
  locale,
  mayAsk,
}: {
  year: number;
  years: readonly number[];
  donors: readonly Donor[];
  locale: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const key = useRef('');
  const [busy, setBusy] = useState(false);
  const open = donors.filter(({ email, sent }) => email && !sent).map(({ customerId }) => customerId);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set(open));
  const letters = donors.filter(({ customerId }) => ticked.has(customerId)).length;

  function turn(id: string, on: boolean) {
    const after = new Set(ticked);
    if (on) after.add(id);
    else after.delete(id);
    setTicked(after);
  }

  async function mail() {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const body = { year, customerIds: [...ticked], requestKey: key.current };
    const answer = await send<{ letters: number }>('POST', '/api/gift-letters', body);
    setBusy(false);
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    key.current = '';
    setTicked(new Set());
    say(
      answer.value.letters === 1 ? '1 statement is on its way' : `${answer.value.letters} statements are on their way`,
    );
    router.refresh();
  }

  return (
    <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
      <div className="flex flex-wrap items-end gap-4 pb-3">
        <h1 className="title-screen flex-1">Donation statements</h1>
        <SelectField
          label="Year"
          value={String(year)}
          onChange={(event) => router.push(`/records/letters?year=${event.target.value}`)}
        >
          {years.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </SelectField>
        {mayAsk && donors.length > 0 ? (
          <Button look="go" disabled={busy || letters === 0} onClick={() => void mail()}>
            {letters === 1 ? 'Mail 1 statement' : `Mail ${letters} statements`}
          </Button>
        ) : null}
      </div>
      <p className="max-w-[72ch] pb-3">
        One statement for each donor and currency, with all donations of the year that were not refunded. Its words and
        who signs it are those of your receipts, in the profile.
      </p>
      {donors.length === 0 ? (
        <Empty words={`Nobody gave anything in ${year}.`} />
      ) : (
        <ul className="border-t border-ink">
          {donors.map((donor) => (
            <li
              key={`${donor.customerId} ${donor.currency}`}
              className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-3 border-b border-rule py-2"
            >
              <Check
                className="translate-y-[3px]"
                aria-label={`Statement for ${donor.name}`}
                disabled={!mayAsk || !donor.email}
                checked={ticked.has(donor.customerId)}
                onChange={(event) => turn(donor.customerId, event.target.checked)}
              />
              <span className="min-w-0">
                <span className="name private block truncate">{donor.name}</span>
                <span className="private block truncate text-soft">
                  {donor.email || 'No e-mail address: print the statement'}
                  {donor.sent ? ` · sent on ${donor.sent}` : ''}
                </span>
              </span>
              <span className="text-right">
                <span className="private block font-serif text-[16.5px]">
                  {moneyText(money(BigInt(donor.minor), donor.currency), locale)}
                </span>
                <span className="text-soft">
                  {donor.count === 1 ? '1 donation' : `${donor.count} donations`},{' '}
                  <a
                    className="link link-small"
                    href={`/files/gifts/${donor.customerId}?year=${year}&currency=${donor.currency}`}
                    target="_blank"
                    rel="noreferrer"
                    aria-label={`Open the statement for ${donor.name}`}
                  >
                    open the statement
                  </a>
                </span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
