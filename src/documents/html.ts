import { escaped } from '@/core/words/escaped';

/** Tags a template as HTML: each `${value}` is escaped, unless `raw` made it. */
export function html(parts: TemplateStringsArray, ...values: readonly (string | Raw)[]): Raw {
  return raw(parts.reduce((text, part, at) => `${text}${shown(values[at - 1] ?? '')}${part}`));
}

/** HTML that is finished. */
export type Raw = { readonly html: string };
export const raw = (text: string): Raw => ({ html: text });
export const joined = (list: readonly Raw[]): Raw => raw(list.map((item) => item.html).join(''));
const shown = (value: string | Raw): string => (typeof value === 'string' ? escaped(value) : value.html);
