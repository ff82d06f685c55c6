'use client';
import { EXEMPT_AS, type ExemptAs } from '@/core/paper/exempt';
import type { Paper } from '@/core/paper/paper';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { Select } from '../kit/select';
import { Without } from './without';

const EXEMPT_WORDS: Readonly<Record<ExemptAs, string>> = {
  exempt: 'exempt',
  'reverse-charge': 'reverse charge',
  export: 'export',
  outside: 'outside the scope',
};

/** Why no tax applies, as it stands on the invoice, and as what. */
export function ExemptRow({
  exempt,
  as,
  trouble,
  onChange,
}: {
  exempt: string;
  as: ExemptAs;
  trouble: string | undefined;
  onChange: (part: Partial<Paper>) => void;
}) {
  return (
    <div>
      <div className="flex items-baseline gap-2">
        <span className="whitespace-nowrap">No tax:</span>
        <Select
          look="blank"
          aria-label="As what it is without tax"
          className="!w-auto !font-sans !text-[13px]"
          value={as}
          onChange={(event) => onChange({ exemptAs: event.target.value as ExemptAs })}
        >
          {EXEMPT_AS.map((one) => (
            <option key={one} value={one}>
              {EXEMPT_WORDS[one]}
            </option>
          ))}
        </Select>
        <input
          data-field="exempt"
          aria-label="Why no tax applies"
          placeholder="why, as it stands on the invoice"
          className="blank !text-[15.5px]/[21px]"
          maxLength={300}
          aria-invalid={trouble ? true : undefined}
          value={exempt}
          onChange={(event) => onChange({ exempt: event.target.value })}
        />
        <Without name="this exemption" onDrop={() => onChange({ exempt: null, exemptAs: 'exempt' })} />
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}

/** What more can stand among the sums. */
export function MoreSums({ paper, onChange }: { paper: Paper; onChange: (part: Partial<Paper>) => void }) {
  return (
    <p className="small mt-1.5 flex flex-wrap gap-x-3.5 gap-y-1 font-sans">
      {paper.delivery ? null : (
        <Button
          look="small-link"
          opens
          className="!text-soft"
          onClick={() => onChange({ delivery: { charged: '', postage: '', packaging: '', taxes: null } })}
        >
          Delivery
        </Button>
      )}
      <Button
        look="small-link"
        opens
        className="!text-soft"
        onClick={() =>
          onChange({ fees: [...paper.fees, { id: crypto.randomUUID(), name: '', amount: '', taxes: [] }] })
        }
      >
        A fee
      </Button>
      <Button
        look="small-link"
        opens
        className="!text-soft"
        onClick={() => onChange({ flatTaxes: [...paper.flatTaxes, { id: crypto.randomUUID(), name: '', amount: '' }] })}
      >
        A flat tax
      </Button>
      {paper.exempt === null ? (
        <Button look="small-link" opens className="!text-soft" onClick={() => onChange({ exempt: '' })}>
          No tax at all
        </Button>
      ) : null}
    </p>
  );
}
