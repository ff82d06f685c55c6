'use client';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { priceMinor } from '@/core/offer/price';
import { split } from '@/core/share/split';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { NumberField } from '../kit/number-input';
import { SelectField } from '../kit/select';
import { Collapsible } from './collapsible';
import { type OfferEditing } from './use-offer';

const EXAMPLE_MINOR = 10_000n;

/** Who shares in the payments, with what each gets of an example. */
export function ShareSection({
  of,
  partners,
  locale,
}: {
  of: OfferEditing;
  partners: readonly { id: string; name: string }[];
  locale: string;
}) {
  const { offer, set, troubles } = of;
  const terms = offer.split;
  const { currency } = offer;
  // 2.9 percent and 0.30, as the processor has it.
  const fee = 320n;
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  let parts: ReturnType<typeof split> | null = null;
  try {
    const keep = terms?.keep ? priceMinor(terms.keep, currency) : null;
    if (terms && terms.partners.length > 0)
      parts = split({
        amount: EXAMPLE_MINOR,
        fee,
        partners: terms.partners,
        ...(keep === null ? {} : { keep }),
        feeFrom: terms.feeFrom,
      });
  } catch {
    parts = null;
  }
  const change = (part: Partial<NonNullable<typeof terms>>) =>
    set({ split: { ...(terms ?? { partners: [], keep: '', feeFrom: 'business', of: 'net' }), ...part } });
  const nameOf = (id: string) => partners.find((one) => one.id === id)?.name ?? 'A former partner';
  const open = partners.filter(({ id }) => !terms?.partners.some(({ partnerId }) => partnerId === id));
  return (
    <Collapsible
      name="Sharing"
      now={
        terms && terms.partners.length > 0
          ? `${terms.partners.length} partner${terms.partners.length === 1 ? '' : 's'}`
          : 'you get it all'
      }
    >
      {partners.length === 0 ? (
        <p className="text-soft">Partners are kept under Records. Add one there, then share with them here.</p>
      ) : null}
      {(terms?.partners ?? []).map((one) => (
        <div key={one.partnerId} className="flex flex-wrap items-end gap-3">
          {terms?.keep && terms.partners.length === 1 ? (
            <p className="w-[240px] pb-2">
              {nameOf(one.partnerId)} <span className="text-soft">gets the rest</span>
            </p>
          ) : (
            <NumberField
              label={`${nameOf(one.partnerId)}, ${terms?.keep ? 'parts of the rest' : 'percent'}`}
              className="w-[240px]"
              value={one.percent}
              onChange={(event) =>
                change({
                  partners: (terms?.partners ?? []).map((each) =>
                    each.partnerId === one.partnerId ? { ...each, percent: event.target.value } : each,
                  ),
                })
              }
            />
          )}
          <Button
            look="small-link"
            className="mb-2"
            onClick={() => {
              const left = (terms?.partners ?? []).filter(({ partnerId }) => partnerId !== one.partnerId);
              if (left.length === 0) set({ split: null });
              else change({ partners: left });
            }}
          >
            Remove
          </Button>
        </div>
      ))}
      {troubles.split ? <FieldError>{troubles.split}</FieldError> : null}
      {open.length > 0 ? (
        <SelectField
          label="Share with"
          className="w-[240px]"
          value=""
          onChange={(event) =>
            change({ partners: [...(terms?.partners ?? []), { partnerId: event.target.value, percent: '10' }] })
          }
        >
          <option value="">choose a partner</option>
          {open.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {terms && terms.partners.length > 0 ? (
        <>
          <div className="flex flex-wrap gap-3">
            <NumberField
              label={`You keep a flat amount, ${currency}`}
              className="w-[210px]"
              placeholder="no"
              value={terms.keep}
              hint="The partners then share the rest."
              onChange={(event) => change({ keep: event.target.value.trim() })}
            />
            <SelectField
              label="What is shared"
              className="w-[210px]"
              value={terms.of ?? 'all'}
              onChange={(event) => change({ of: event.target.value as 'net' | 'all' })}
            >
              <option value="net">what is left without tax and delivery</option>
              <option value="all">all that is paid</option>
            </SelectField>
            <SelectField
              label="The processing fee is borne by"
              className="w-[210px]"
              value={terms.feeFrom}
              onChange={(event) => change({ feeFrom: event.target.value as 'business' | 'all' })}
            >
              <option value="business">you</option>
              <option value="all">all, in proportion</option>
            </SelectField>
          </div>
          {parts ? (
            <div className="document max-w-[420px] bg-wash px-4 py-3">
              <p className="small mb-1 font-sans text-soft">
                Of {text(EXAMPLE_MINOR)}
                {terms.of === 'net' ? ' without tax and delivery' : ''}, after the fee of {text(fee)}
              </p>
              <Leader label="You">{text(parts.business.net)}</Leader>
              {parts.partners.map((part, at) => (
                <Leader key={terms.partners[at]?.partnerId} label={nameOf(terms.partners[at]?.partnerId ?? '')}>
                  {text(part.net)}
                </Leader>
              ))}
            </div>
          ) : null}
        </>
      ) : null}
    </Collapsible>
  );
}
