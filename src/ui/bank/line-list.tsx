'use client';
import { Figure } from '../kit/amount';
import { GroupHead } from '../list/list-group';
import { type BankLineShown, GROUPS } from './bank-shown';
import { Petal } from './petal';

/** The lines in their groups, the surest first; one of them is in hand. */
export function LineList({
  lines,
  at,
  currency,
  locale,
  onChoose,
}: {
  lines: readonly BankLineShown[];
  at: string;
  currency: string;
  locale: string;
  onChoose: (id: string) => void;
}) {
  return (
    <>
      {GROUPS.map(({ group, name }) => {
        const own = lines.filter((line) => line.group === group);
        if (own.length === 0) return null;
        return (
          <section key={group} aria-label={name}>
            <GroupHead name={name}>
              <Figure minor={own.reduce((sum, { minor }) => sum + minor, 0)} currency={currency} locale={locale} />
            </GroupHead>
            <ul>
              {own.map((line) => (
                <li key={line.id} className={line.id === at ? 'relative z-10 -ml-3 mr-0 xl:-mr-[21px]' : ''}>
                  <button
                    type="button"
                    data-line={line.id}
                    aria-current={line.id === at ? 'true' : undefined}
                    onClick={() => onChoose(line.id)}
                    className={`grid min-h-[50px] w-full grid-cols-[30px_minmax(0,1fr)_auto] items-center border-b py-1 pl-0.5 pr-3 text-left outline-offset-[-2px] ${
                      line.id === at
                        ? 'rounded-l-paper border-transparent bg-sheet pl-3.5 shadow-[-1px_1px_0_var(--rule),-1px_-1px_0_var(--rule)] xl:pr-[33px]'
                        : 'border-rule hover:bg-[color-mix(in_srgb,var(--rule)_55%,transparent)]'
                    }`}
                  >
                    <Petal group={group} />
                    <span className="min-w-0 pr-3">
                      <span className="name private block truncate">{line.title}</span>
                      <span className="private block truncate text-[12.5px]/[17px] text-soft">{line.under}</span>
                    </span>
                    <span className="text-right">
                      <span className="name block">
                        <Figure minor={line.minor} currency={currency} locale={locale} />
                      </span>
                      <span className="block text-[12.5px]/[17px] text-soft">{line.day}</span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}
