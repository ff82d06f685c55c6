import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import type { PrintedLine, Seller } from '@/core/invoice/printed';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { wordsOf } from '@/core/words/words';
import { html, joined, type Raw } from '../html';
import { mailPage, styleOf } from './layout';

/** What a letter says, in both parts. */
export type Letter = { readonly subject: string; readonly text: string; readonly html: string };

/** What sums are written for: their currency, and the reader's locale. */
export type Written = { readonly currency: string; readonly locale: string };

/** A sum in minor units with its currency, for its reader. */
export const sumText = (minor: number | bigint, of: Written): string =>
  moneyText(money(BigInt(minor), of.currency), of.locale);
/** A sum in minor units without its currency, as tables have it. */
export const figure = (minor: number, of: Written): string => figureText(money(BigInt(minor), of.currency), of.locale);

const houseFoot = (seller: Seller): string =>
  [seller.name, ...seller.address, seller.phone, seller.website].filter(Boolean).join(' · ');

/** A row of a letter's table; `link` is where its label leads. */
export type Row = { readonly label: string; readonly value: string; readonly link?: string };

/** One letter in our one form: who it is from, a line, a leading sum, words, a table, a button, a last line. */
export function letter(of: {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly logo?: string | undefined;
  readonly subject: string;
  readonly lead: string;
  readonly sum: string;
  readonly under: string;
  readonly words: readonly string[];
  /** A picture below the words, and what it says to who does not see it. */
  readonly picture?: { readonly address: string; readonly says: string } | undefined;
  readonly rows: readonly Row[];
  readonly total?: Row;
  readonly button?: { readonly words: string; readonly link: string };
  readonly italic?: string;
  readonly last: string;
  readonly foot?: string;
}): Letter {
  const style = styleOf(of.accent);
  const paragraphs = of.words.flatMap((text) => text.split(/\n{2,}/)).filter((text) => text.trim());
  const row = ({ label, value, link }: Row): Raw =>
    html`<tr><td style="${style.cell}">${link ? html`<a href="${link}" style="color:#241A26">${label}</a>` : label}</td><td style="${style.number}">${value}</td></tr>`;
  const total = of.total
    ? html`<tr><td style="${style.total}">${of.total.label}</td><td style="${style.total};text-align:right;white-space:nowrap">${of.total.value}</td></tr>`
    : '';
  const table =
    of.rows.length > 0 || of.total
      ? html`<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="margin:20px 0 24px;border-top:1px solid #241A26">${joined(of.rows.map(row))}${total}</table>`
      : '';
  const body = html`
<p style="${style.soft}">${of.lead}</p>
<p style="${style.sum}">${of.sum}</p>
<p style="${style.soft}">${of.under}</p>
${joined(paragraphs.map((text) => html`<p style="${style.text};margin-top:16px;white-space:pre-line">${text}</p>`))}
${of.picture ? html`<p style="margin:0 0 12px"><img src="${of.picture.address}" alt="${of.picture.says}" width="132" height="132" style="display:block;border:1px solid #DED3C6"></p><p style="${style.soft}">${of.picture.says}</p>` : ''}
${table}
${of.button ? html`<p style="margin:14px 0 20px"><a href="${of.button.link}" style="${style.button}">${of.button.words}</a></p>` : ''}
${of.italic ? html`<p style="${style.text};font-style:italic;white-space:pre-line">${of.italic}</p>` : ''}
<p style="${style.soft}">${of.last}</p>`;
  const { colon } = wordsOf(of.locale);
  const text = [
    of.lead,
    [of.sum, of.under].filter(Boolean).join(', '),
    '',
    ...paragraphs.flatMap((words) => [words, '']),
    ...[...of.rows, ...(of.total ? [of.total] : [])].flatMap(({ label, value, link }) => [
      `${label}${colon} ${value}`,
      ...(link ? [link] : []),
    ]),
    ...(of.button ? ['', `${of.button.words}${colon}`, of.button.link] : []),
    ...(of.italic ? ['', of.italic] : []),
    '',
    of.last,
    of.foot ?? houseFoot(of.seller),
  ].join('\n');
  const preview = [of.sum, of.under].filter(Boolean).join(', ');
  return {
    subject: of.subject,
    text,
    html: mailPage({
      language: of.locale.slice(0, 2),
      title: of.subject,
      preview,
      house: of.seller.name,
      logo: of.logo,
      accent: of.accent,
      body,
      foot: of.foot ?? houseFoot(of.seller),
    }),
  };
}

/** A calendar date in the reader's words. */
export const day = (date: string, locale: string): string => longDate(date as CalendarDate, locale);

/** A line with what is off it, so that its figure is understood. */
export function lineLabel(line: PrintedLine, of: Written, label: string): string {
  const words = wordsOf(of.locale);
  const off = line.discount > 0 ? words.less(line.discountText || words.aDiscount, figure(line.discount, of)) : '';
  return [label, off].filter(Boolean).join(', ');
}

/** A note to the business about something its customer did. */
export function notice(of: {
  seller: Seller;
  subject: string;
  lead: string;
  sum: string;
  words: string;
  link: string;
  /** What the button says. */
  open?: string;
  foot: string;
}): Letter {
  return letter({
    locale: 'en',
    seller: of.seller,
    accent: '#6B2451',
    subject: of.subject,
    lead: of.lead,
    sum: of.sum,
    under: '',
    words: [of.words],
    rows: [],
    button: { words: of.open ?? 'Open the invoice', link: of.link },
    last: '',
    foot: of.foot,
  });
}
