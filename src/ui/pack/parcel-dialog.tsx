'use client';
import { useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type Measures } from '@/core/parcel/measure';
import { addressLines } from '@/core/place/address';
import { Button } from '../kit/button';
import { Radio } from '../kit/check';
import { Dialog } from '../kit/dialog';
import { FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { Segment } from '../kit/segment';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import { RecipientFields } from './recipient-fields';
import type { PaperRowShown } from './shown';
import { WeightField } from './weight-field';

type Shown = { row: PaperRowShown; currency: string; locale: string };

/** Services compared by price and day. */
function Services({
  row,
  currency,
  locale,
  chosen,
  onChoose,
}: Shown & { chosen: string; onChoose: (service: string) => void }) {
  const rates = row.cost?.rates ?? [];
  if (rates.length === 0) return null;
  return (
    <fieldset>
      <legend className="label mb-1">Service</legend>
      <div className="grid border-t border-rule">
        {[{ service: '', name: 'As the profile says', minor: null, promised: '' }, ...rates].map((rate) => (
          <label
            key={rate.service}
            className="grid min-h-9 grid-cols-[26px_minmax(0,1fr)_auto_84px] items-center gap-2 border-b border-rule"
          >
            <Radio
              name="service"
              value={rate.service}
              checked={chosen === rate.service}
              onChange={() => onChoose(rate.service)}
            />
            <span>{rate.name}</span>
            <span className="small text-soft">{rate.promised ? `by ${rate.promised}` : ''}</span>
            <span className="private text-right font-serif text-[15px]">
              {rate.minor === null ? '' : moneyText(money(BigInt(rate.minor), currency), locale)}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What of it is left out: for later, or for a parcel of its own. */
function LeaveOut({ row, onDone }: { row: PaperRowShown; onDone: () => void }) {
  const [out, setOut] = useState<Readonly<Record<number, string>>>({});
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  const chosen = row.lines.flatMap(({ place }) =>
    out[place] ? [{ place, quantity: out[place].replace(',', '.') }] : [],
  );
  async function leave(apart: boolean) {
    const answer = await press(`/api/parcels/${row.id}/part`, { out: chosen, apart });
    setTrouble(troubleOf(answer));
    if (answer.ok) onDone();
  }
  return (
    <section aria-label="In it">
      <h3 className="label mb-1">In it, and how many are left out</h3>
      <ul className="border-t border-rule">
        {row.lines.map(({ place, what, quantity }) => (
          <li
            key={place}
            className="grid min-h-9 grid-cols-[minmax(0,1fr)_48px_70px] items-center gap-3 border-b border-rule py-1"
          >
            <span className="document private min-w-0 truncate">{what}</span>
            <span className="text-right font-serif text-[15px]">{quantity}</span>
            <input
              className="input !min-h-8 text-right"
              aria-label={`Leave out of ${what}`}
              inputMode="decimal"
              placeholder="0"
              value={out[place] ?? ''}
              onChange={(event) => setOut({ ...out, [place]: event.target.value })}
            />
          </li>
        ))}
      </ul>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {chosen.length > 0 ? (
        <p className="flex flex-wrap gap-4 pt-2">
          <Button look="link" disabled={busy} onClick={() => void leave(false)}>
            Leave for later
          </Button>
          <Button look="link" disabled={busy} onClick={() => void leave(true)}>
            Put into a parcel of its own
          </Button>
        </p>
      ) : null}
    </section>
  );
}

/** A parcel on the paper, whole: what it weighs, how it goes, what is in it, where it goes. */
export function ParcelDialog({
  row,
  profiles,
  measures,
  home,
  currency,
  locale,
  onCustoms,
  onClose,
}: Shown & {
  profiles: readonly { readonly id: string; readonly name: string }[];
  measures: Measures;
  home: string;
  onCustoms: () => void;
  onClose: () => void;
}) {
  const [grams, setGrams] = useState(row.weighed ? row.grams : 0);
  const [service, setService] = useState(row.service);
  const [profileId, setProfileId] = useState(row.byRule ? '' : row.profileId);
  const [notice, setNotice] = useState(row.notice);
  const [recipient, setRecipient] = useState(row.recipient);
  const [moving, setMoving] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();

  async function save() {
    const answer = await press(
      `/api/parcels/${row.id}`,
      {
        grams: grams > 0 ? grams : null,
        service,
        notice,
        ...(profileId === (row.byRule ? '' : row.profileId) ? {} : { profileId: profileId || null }),
        ...(moving ? { recipient } : {}),
      },
      '',
      'PUT',
    );
    setTrouble(troubleOf(answer));
    if (answer.ok) onClose();
  }

  return (
    <Dialog
      open
      onOpenChange={(next) => !next && onClose()}
      title={row.name}
      about={[
        row.where,
        row.sales.map(({ number }) => number).join(', '),
        row.wantedBy ? `wanted by ${row.wantedBy}` : '',
      ]
        .filter(Boolean)
        .join(' · ')}
    >
      <form
        className="grid gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        {row.wish ? <p className="document private whitespace-pre-line bg-wash px-3 py-2 italic">{row.wish}</p> : null}
        <div className="grid gap-3 sm:grid-cols-2">
          <SelectField label="Parcel profile" value={profileId} onChange={(event) => setProfileId(event.target.value)}>
            <option value="">By rule{row.byRule && row.profile ? `: ${row.profile}` : ''}</option>
            {profiles.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
          <WeightField
            label="Weighed, with its packing"
            hint={row.weighed ? '' : `Reckoned: ${row.weight}`}
            value={grams}
            measures={measures}
            onChange={setGrams}
          />
        </div>
        <Services row={row} currency={currency} locale={locale} chosen={service} onChoose={setService} />
        <Segment
          label="The customer is told"
          value={notice}
          choices={[
            ['on-day', 'On the mailing date'],
            ['first-scan', 'With the first scan'],
            ['held', 'By hand'],
          ]}
          onChoose={setNotice}
        />
        {row.customs ? (
          <p className={row.customs.problems.length > 0 ? 'bg-ochre-tint px-3 py-2' : ''}>
            {row.customs.problems.length > 0
              ? `${row.customs.problems[0]?.words} `
              : 'Customs are told what is in it. '}
            <Button look="link" opens onClick={onCustoms}>
              {row.customs.problems.length > 0 ? 'Say it for customs' : 'Look at it'}
            </Button>
          </p>
        ) : null}
        <LeaveOut row={row} onDone={onClose} />
        {row.shelves.some(({ shelf }) => shelf) ? (
          <p className="small text-soft">
            Lies at {row.shelves.flatMap(({ shelf, what }) => (shelf ? [`${shelf} (${what})`] : [])).join(', ')}
          </p>
        ) : null}
        {row.proposal && !moving ? (
          <p className="bg-ochre-tint px-3 py-2">
            The carrier would write:{' '}
            <b className="private font-semibold">{addressLines(row.proposal, home, locale).join(', ')}</b>.{' '}
            <Button
              look="link"
              onClick={() => {
                if (row.proposal) setRecipient({ ...recipient, address: row.proposal });
                setMoving(true);
              }}
            >
              Take it over
            </Button>
          </p>
        ) : null}
        {moving ? (
          <RecipientFields recipient={recipient} home={home} onChange={setRecipient} />
        ) : (
          <p>
            <Button look="link" opens onClick={() => setMoving(true)}>
              Send it elsewhere
            </Button>
          </p>
        )}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="flex justify-end gap-3">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="go" busy={busy} busyWords="One moment">
            Save parcel
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
