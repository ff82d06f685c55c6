import { money } from '@/core/money/money';
import { figureText } from '@/core/money/money-text';
import type { Step, Working } from '@/core/tally/working';
import { numbersLike } from '@/core/writing/writing';
import { Leader } from './kit/leader';

function stepFigure(figure: Step['figure'], currency: string, locale: string): string {
  if ('minor' in figure) return figureText(money(figure.minor, currency), locale);
  return new Intl.NumberFormat(numbersLike(locale), { maximumFractionDigits: 10 }).format(figure.exact as `${number}`);
}

/** A tally: each step of a figure with its sign, one rule above a sum, two below the end. */
export function WorkingSteps({ working, currency, locale }: { working: Working; currency: string; locale: string }) {
  const signs = working.steps.some(({ sign }) => sign !== '');
  return (
    <div className="document">
      {working.steps.map((step, at) => (
        <div
          key={at}
          className={`flex min-h-[26px] items-baseline gap-2 ${step.kind === 'sum' ? 'border-t border-ink pt-0.5' : ''} ${
            step.kind === 'end' ? 'rule-total mt-px py-0.5 text-[17px] font-semibold' : ''
          }`}
        >
          {signs ? (
            <span className="w-3.5 flex-none text-center font-sans text-[12px]">
              {step.sign === '=' ? '' : step.sign}
            </span>
          ) : null}
          <Leader
            label={
              <span className="private">
                {step.label}
                {step.of === undefined ? null : ` ${figureText(money(step.of, currency), locale)}`}
              </span>
            }
            className="min-w-0 flex-1"
          >
            <span className="private">{stepFigure(step.figure, currency, locale)}</span>
          </Leader>
        </div>
      ))}
      {working.rules.map((rule) => (
        <p key={rule} className="small mt-2 font-sans text-soft">
          {rule}
        </p>
      ))}
    </div>
  );
}
