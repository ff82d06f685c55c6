import type { ComponentProps } from 'react';
import { type Around, Labelled } from './field';

/** A choice from a list. `blank`: on paper, where only its words are seen. */
export function Select({
  look = 'input',
  className = '',
  ...select
}: ComponentProps<'select'> & { look?: 'input' | 'blank' }) {
  return <select className={`${look} ${className}`.trim()} {...select} />;
}

/** The same with its label, hint and error. */
export function SelectField({ label, error, hint, className, ...select }: ComponentProps<'select'> & Around) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <Select {...tied} {...select} />}
    </Labelled>
  );
}
