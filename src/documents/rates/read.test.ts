import { expect, test } from 'vitest';
import { readRates } from './read';

const XML = `<?xml version="1.0" encoding="UTF-8"?>
<e:Envelope xmlns:e="urn:envelope" xmlns="urn:rates"><e:subject>Reference rates</e:subject>
<Cube><Cube time='2026-11-20'><Cube currency='USD' rate='1.0824'/><Cube currency='JPY' rate='163.15'/><Cube currency='XXX' rate='9'/></Cube>
<Cube time='2026-11-19'><Cube currency='USD' rate='1.0811'/></Cube></Cube></e:Envelope>`;

test('rates are read from XML, the latest day first, without what is no currency', () => {
  expect(readRates(XML)).toEqual([
    { on: '2026-11-20', perEuro: { USD: '1.0824', JPY: '163.15' } },
    { on: '2026-11-19', perEuro: { USD: '1.0811' } },
  ]);
});

test('rates are read from CSV, whichever way the day is written', () => {
  const csv = 'Date, USD, JPY, BGN, \n20 November 2026, 1.0824, 163.15, N/A, \n2026-11-19, 1.0800, 0, 1.9558, ';
  expect(readRates(csv)).toEqual([
    { on: '2026-11-20', perEuro: { USD: '1.0824', JPY: '163.15' } },
    { on: '2026-11-19', perEuro: { USD: '1.08', BGN: '1.9558' } },
  ]);
});

test('anything else gives no rates, and no error', () => {
  for (const text of [
    '',
    'hello',
    '<a><b',
    '<Cube time="today"><Cube currency="USD" rate="x"/></Cube>',
    '{"USD": 1}',
    'Date,USD\n2026-02-30,1.1',
  ])
    expect(readRates(text), text).toEqual([]);
});
