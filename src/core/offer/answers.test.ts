import { expect, test } from 'vitest';
import { answerTable } from './answers';
import { linkPicture } from './link-look';
import { packingOf } from './packing';

const answered = (...answers: readonly (readonly [string, string])[]) => ({
  answers: answers.map(([label, text]) => ({ label, text, onReceipt: false })),
});

test('answers stand under their question, whatever order or wording the offer had when they were given', () => {
  const { questions, cells } = answerTable([
    answered(['Bow hand', 'left'], ['Diet', 'none']),
    answered(['Diet', 'no nuts'], ['Size', '3/4']),
    answered(['Size', '1/2'], ['Size', '4/4']),
    answered(),
  ]);
  expect(questions).toEqual(['Bow hand', 'Diet', 'Size', 'Size (2)']);
  expect(cells.map((row) => row.map(({ text }) => text))).toEqual([
    ['left', 'none', '', ''],
    ['', 'no nuts', '3/4', ''],
    ['', '', '1/2', '4/4'],
    ['', '', '', ''],
  ]);
});

test('packing has to whom and where, how they are reached, what they wrote and answered; nothing that was not said', () => {
  const payer = { name: 'Ida Marsh', email: 'ida@marsh.example', address: ['4 Kiln Road', 'Fenwick'] };
  const order = {
    payer,
    deliveryTo: ['9 Weir Street'],
    phone: '555 0100',
    message: 'Ring twice',
    ...answered(['Size', '3/4']),
  };
  expect(packingOf(order).map(({ label, text }) => `${label}: ${text}`)).toEqual([
    'Deliver to: Ida Marsh, 9 Weir Street',
    'Bill to: 4 Kiln Road, Fenwick',
    'E-mail: ida@marsh.example',
    'Phone: 555 0100',
    'Message: Ring twice',
    'Size: 3/4',
  ]);
  const bare = { ...order, deliveryTo: [], phone: '', message: ' ', answers: [] };
  expect(packingOf(bare).map(({ label }) => label)).toEqual(['Address', 'E-mail']);
  // Sent where it is billed: said once.
  expect(packingOf({ ...bare, deliveryTo: payer.address }).map(({ label }) => label)).toEqual(['Deliver to', 'E-mail']);
});

test('a link’s picture is a file of ours or none', () => {
  const id = '00000000-0000-4000-8000-000000000000';
  expect(linkPicture({ picture: id })).toBe(id);
  for (const picture of ['https://elsewhere.example/x.png', '../../etc', 7, null, undefined, `${id}x`])
    expect(linkPicture({ picture })).toBeNull();
});
