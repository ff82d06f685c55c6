/** What the screens' parts write into HTML, rendered as the server does. */
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { completePrinted } from '@/core/invoice/printed';
import { tally } from '@/core/tally/tally';
import { working } from '@/core/tally/working';
import { ContactLine } from './contact-line';
import { InvoicePaper } from './invoice/invoice-paper';
import { Amount, Figure } from './kit/amount';
import { Rosette } from './rosette';
import { ROSETTE_LOOKS, type RosetteState } from './rosette-geometry';
import { WorkingSteps } from './working';

const text = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/[\u202f\u00a0]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const invoice = completePrinted({
  number: '1187',
  currency: 'EUR',
  locale: 'de-DE',
  issuedOn: calendarDate('2026-11-03'),
  dueOn: calendarDate('2026-11-17'),
  dueOnReceipt: false,
  reference: 'viola 1931',
  note: 'Bis Samstag',
  seller: { name: 'S', address: ['Weg 1'], phone: '030 1', email: 's@s.example', website: '', taxNumber: '' },
  payer: { name: '<b>Öystad</b>', address: [], email: '' },
  pricesIncludeTax: true,
  lines: [
    {
      what: 'Reparatur',
      unit: 'hour',
      quantity: '3.5',
      unitPrice: '72',
      gross: 25_200,
      discount: 2_520,
      discountText: '10 %',
      net: 22_680,
      taxes: ['USt'],
    },
  ],
  subtotal: 25_200,
  lineDiscounts: 2_520,
  discount: 0,
  discountText: '',
  taxes: [{ id: 't', name: 'USt', rate: '19', base: 19_059, amount: 3_621 }],
  taxTotal: 3_621,
  total: 22_680,
});

test('a leading figure has its sign where the locale has it; a column’s has none', () => {
  expect(text(renderToStaticMarkup(<Amount minor={15_120n} currency="EUR" locale="de-DE" />))).toBe('151,20 €');
  expect(text(renderToStaticMarkup(<Amount minor={15_120} currency="USD" locale="en-US" />))).toBe('$ 151.20');
  expect(text(renderToStaticMarkup(<Figure minor={-100n} currency="JPY" locale="en-US" />))).toBe('−100');
});

describe('the paper', () => {
  const html = renderToStaticMarkup(
    <InvoicePaper invoice={invoice} paid={[{ id: 'p', label: 'Paid', minor: 10_000 }]} dueMinor={12_680} />,
  );
  test('shows each figure of the printed invoice, in the customer’s way, with what was paid and is due', () => {
    const shown = text(html);
    for (const words of [
      'Rechnung 1187',
      'viola 1931',
      '3,5 Std. × 72,00',
      'abzüglich 10 %',
      '226,80',
      'Darin enthalten USt, 19 %',
      '36,21',
      '−100,00',
      '126,80 €',
      'Bis Samstag',
      '17. November 2026',
    ]) {
      expect(shown).toContain(words);
    }
  });
  test('takes a name for text, whatever it holds', () => {
    expect(html).not.toContain('<b>Öystad');
    expect(html).toContain('&lt;b&gt;Öystad');
  });
  test('marks what cover hides', () => {
    for (const hidden of ['226,80', '126,80']) expect(html).toMatch(new RegExp(`class="private[^"]*">[^<]*${hidden}`));
  });
});

test('a contact line leaves out what is empty and breaks only between its parts', () => {
  const html = renderToStaticMarkup(<ContactLine parts={['Weg 1', '', '030 1']} />);
  expect(text(html)).toBe('Weg 1 · 030 1');
  expect(html.match(/whitespace-nowrap/g)?.length).toBe(2);
});

test('every state has a rosette that is decoration only, since its word stands beside it', () => {
  for (const state of Object.keys(ROSETTE_LOOKS) as RosetteState[]) {
    const html = renderToStaticMarkup(<Rosette state={state} share={0.4} size={48} />);
    expect(html).toContain('aria-hidden="true"');
    // A refund is one petal that has fallen.
    expect(html.match(/rotate\(/g)?.length).toBeGreaterThanOrEqual(state === 'Refund' ? 1 : 6);
  }
});

test('a tally shows the unrounded step and ends with the rounded figure', () => {
  const document = {
    currency: 'USD',
    pricesIncludeTax: false,
    lines: [{ quantity: '3', unitPrice: '0.035', taxes: ['a'] }],
    taxes: [{ id: 'a', name: 'Tax', rate: '8.25', onDelivery: false }],
  };
  const steps = working(document, tally(document), ['Screws'], { of: 'line', at: 0 });
  const shown = text(renderToStaticMarkup(<WorkingSteps working={steps} currency="USD" locale="en-US" />));
  expect(shown).toContain('Not rounded yet 0.105');
  expect(shown).toContain('Amount of the line 0.11');
  expect(shown).toContain('a half away from zero');
});
