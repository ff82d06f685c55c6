import type { ReactNode } from 'react';
import { Check } from '../kit/check';

/** What follows from the lines: a discount, the tax on top. */
export function SumRow({
  words,
  paid,
  choosing,
  back,
}: {
  words: string;
  paid: ReactNode;
  choosing: boolean;
  back: ReactNode;
}) {
  return (
    <tr className="border-b border-rule text-soft">
      <td className="py-1.5">{words}</td>
      <td className="py-1.5 text-right">{paid}</td>
      {choosing ? <td /> : null}
      {choosing ? <td className="py-1.5 text-right">{back}</td> : null}
    </tr>
  );
}

/** A charge or a tip that goes back whole or not at all. */
export function TickRow({
  words,
  paid,
  choosing,
  left,
  ticked,
  onTick,
}: {
  words: string;
  paid: ReactNode;
  choosing: boolean;
  left: boolean;
  ticked: boolean;
  onTick: (ticked: boolean) => void;
}) {
  return (
    <tr className="border-b border-rule">
      <td className="py-1.5">{words}</td>
      <td className="py-1.5 text-right">{paid}</td>
      {choosing ? (
        <td className="py-1.5 pl-5 font-sans text-[13.5px]/5">
          {left ? (
            <label className="inline-flex items-center gap-2">
              <Check checked={ticked} onChange={(event) => onTick(event.target.checked)} />
              <span className="text-soft">{ticked ? 'goes back' : 'stays'}</span>
            </label>
          ) : (
            <span className="small text-soft">given back</span>
          )}
        </td>
      ) : null}
      {choosing ? <td className="py-1.5 text-right">{ticked ? paid : '–'}</td> : null}
    </tr>
  );
}
