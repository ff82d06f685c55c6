import { describe, expect, test } from 'vitest';
import { completePage, goalShare, moved, newBlock, pageWarnings } from '@/core/page/page';
import { drawPage, finishedPage, type PageOffer, type PageSetting } from './page';
import { cleanText } from './rich-text';

const id = (digit: number) => `${String(digit).repeat(8)}-0000-4000-8000-000000000000`;
const setting: PageSetting = {
  title: 'Lend a violin',
  seller: {
    name: 'Sallow <Joinery>',
    address: [],
    phone: '',
    email: 'bench@sallow.example',
    website: '',
    taxNumber: '',
  },
  locale: 'en-US',
  currency: 'USD',
  picture: (file) => `/p/x/pictures/${file}`,
  logo: null,
};
const offer: PageOffer = {
  action: '/c/lend',
  kind: 'donation',
  price: '',
  amounts: [
    { value: '25', text: '$25.00' },
    { value: '50', text: '$50.00' },
  ],
  chosen: 1,
  ownAmount: true,
  purposes: ['Strings', '"><b>Bows'],
  items: [],
  fields: [],
  closed: '',
  currency: 'USD',
  currencies: ['USD', 'EUR'],
  handedOn: { lang: 'en' },
};
const finished = (look: object, more: Partial<PageOffer> = {}, reached = 0n) => {
  const page = completePage(look as Record<string, unknown>, '#6b2451');
  return finishedPage(drawPage(page, setting, []), { ...offer, ...more }, reached, setting);
};

describe('what stands on a page cannot run, whoever wrote it', () => {
  test.each([
    '<script>alert(1)</script><p>fine</p>',
    '<p onclick="alert(1)">fine</p>',
    '<img src=x onerror=alert(1)><p>fine</p>',
    '<a href="javascript:alert(1)">fine</a>',
    '<a href="data:text/html,x">fine</a>',
    '<a href="//elsewhere.example">fine</a>',
    '<svg><script>alert(1)</script></svg><p>fine</p>',
    '<iframe src="https://elsewhere.example"></iframe><p>fine</p>',
    '<style>body{display:none}</style><p style="position:fixed">fine</p>',
    '<form action="https://elsewhere.example"><input></form><p>fine</p>',
    '<p>fine<!--here:offer--></p>',
  ])('%s', (hostile) => {
    const text = cleanText(hostile);
    expect(text).toContain('fine');
    expect(text).not.toMatch(
      /script|onclick|onerror|javascript:|data:|\/\/elsewhere|iframe|style|<form|<input|<svg|<!--/i,
    );
  });

  test('headings, names, pictures and purposes are escaped', () => {
    const look = {
      blocks: [
        newBlock(id(1), 'heading', { text: '<script>alert(1)</script>' }),
        newBlock(id(2), 'picture', { pictures: [{ fileId: id(9), alt: '"><script>' }] }),
        newBlock(id(3), 'offer', { text: '<i>Give</i>' }),
        newBlock(id(4), 'questions', { questions: [{ ask: '<b>', answer: '<script>' }] }),
        newBlock(id(5), 'contact'),
      ],
    };
    const html = finished(look);
    expect(html).not.toMatch(/<script|<i>|<b>Bows/);
    expect(html).toContain('Sallow &#60;Joinery&#62;');
  });
});

test('a page is whole whatever was sent: what is of no known form is left out', () => {
  const page = completePage(
    {
      blocks: [
        { id: 'no', kind: 'text' },
        { id: id(1), kind: 'magic' },
        { id: id(2), kind: 'text', text: 7, pictures: 'x' },
        null,
      ],
      theme: { background: 'red;}', accent: '#ABCDEF', fonts: 'comic', cover: { fileId: '../etc' } },
    },
    '#6b2451',
  );
  expect(page.blocks).toEqual([newBlock(id(2), 'text')]);
  expect(page.theme).toMatchObject({ background: '#fffdf9', accent: '#abcdef', fonts: 'workshop', cover: null });
  expect(
    completePage({ blocks: Array.from({ length: 200 }, (_, at) => newBlock(id(at % 10), 'spacer')) }, '#6b2451').blocks
      .length,
  ).toBe(80);
});

test('hidden blocks are not there, and what changes stands in its place', () => {
  const look = {
    blocks: [
      newBlock(id(1), 'heading', { text: 'Shown' }),
      newBlock(id(2), 'heading', { text: 'Not shown', hidden: true }),
      newBlock(id(3), 'goal', { text: '400' }),
      newBlock(id(4), 'offer'),
    ],
  };
  const html = finished(look, {}, 10_000n);
  expect(html).toContain('<h1>Shown</h1>');
  expect(html).not.toContain('Not shown');
  // 100.00 of 400.00.
  expect(html).toContain('aria-valuenow="25"');
  expect(html).toContain('value="50" checked');
  expect(finished(look, { closed: 'All places are taken.' })).toContain('All places are taken.');
  expect(finished(look, { closed: 'All places are taken.' })).not.toContain('<form');
  expect([goalShare(0n, 0n), goalShare(5n, 10n), goalShare(50n, 10n)]).toEqual([0, 0.5, 1]);
});

test('blocks are moved, and a poor choice of colours is said', () => {
  const blocks = [1, 2, 3].map((digit) => newBlock(id(digit), 'spacer'));
  const order = (list: readonly { id: string }[]) => list.map((one) => one.id[0]).join('');
  expect(order(moved(blocks, id(1), 2))).toBe('231');
  expect(order(moved(blocks, id(3), 0))).toBe('312');
  expect(order(moved(blocks, id(9), 0))).toBe('123');
  const poor = completePage({ theme: { background: '#ffffff', text: '#cccccc', accent: '#eeeeee' } }, '#6b2451');
  expect(pageWarnings(poor).length).toBe(3);
  expect(pageWarnings(completePage({ blocks: [newBlock(id(1), 'offer')] }, '#6b2451'))).toEqual([]);
});

test('other currencies and languages are a link away, and what is chosen of one stays when the other changes', () => {
  const text = finished({ blocks: [newBlock(id(1), 'offer')] });
  expect(text).toContain('<a href="?lang=en&#38;currency=EUR">EUR</a>');
  expect(text).toContain('<a href="?lang=fr">Français</a>');
  expect(text).toContain('<b aria-current="true">USD</b>');
  expect(text).toContain('<input type="hidden" name="lang" value="en">');
});
