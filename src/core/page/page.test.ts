import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { BLOCK_KINDS, completePage, firstPage, MOST_BLOCKS, moved, newBlock, pageFiles } from './page';

const ID = '11111111-1111-4111-8111-111111111111';
const FILE = '22222222-2222-4222-8222-222222222222';
const HIDDEN = '33333333-3333-4333-8333-333333333333';
const ACCENT = '#6b2451';

test('whatever was kept or sent, the page is whole, and complete again it is the same', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.constantFrom('blocks', 'theme', 'other'), fc.jsonValue({ maxDepth: 5 })), (kept) => {
      const page = completePage(kept as Record<string, unknown>, ACCENT);
      expect(completePage({ ...page }, ACCENT)).toEqual(page);
    }),
  );
});

describe('what is of no known form is left out', () => {
  test.each([
    ['a kind that there is not', { id: ID, kind: 'script', text: 'x' }],
    ['a block without an id', { kind: 'text', text: 'x' }],
    ['an id that is none', { id: '<b>', kind: 'text' }],
    ['no block at all', 'text'],
  ])('%s', (_, block) => {
    expect(completePage({ blocks: [block] }, ACCENT).blocks).toEqual([]);
  });

  test('colours that are none fall back, and nothing else can stand in a style', () => {
    const { theme } = completePage({ theme: { background: 'red;}', text: '#FFF', accent: 'url(x)' } }, 'nonsense');
    expect(theme).toMatchObject({ background: '#fffdf9', text: '#241a26', accent: '#6b2451' });
  });

  test('pictures are files of the business’s, no addresses', () => {
    const pictures = [{ fileId: 'https://elsewhere.example/x.png' }, { fileId: FILE, alt: 5 }];
    const [block] = completePage({ blocks: [{ id: ID, kind: 'gallery', pictures }] }, ACCENT).blocks;
    expect(block?.pictures).toEqual([{ fileId: FILE, alt: '' }]);
  });
});

test('more blocks than a page holds are cut off', () => {
  const blocks = Array.from({ length: MOST_BLOCKS + 20 }, () => newBlock(ID, 'spacer'));
  expect(completePage({ blocks }, ACCENT).blocks.length).toBe(MOST_BLOCKS);
});

test('every kind of block can stand on a page', () => {
  const blocks = BLOCK_KINDS.map((kind) => newBlock(ID, kind));
  expect(completePage({ blocks }, ACCENT).blocks.map(({ kind }) => kind)).toEqual([...BLOCK_KINDS]);
});

test('the files that visitors may fetch are those that are shown: the cover’s, and of blocks that are not hidden', () => {
  const page = completePage(
    {
      theme: { cover: { fileId: FILE, alt: '' } },
      blocks: [
        newBlock(ID, 'picture', { pictures: [{ fileId: FILE, alt: '' }] }),
        newBlock(ID, 'picture', { hidden: true, pictures: [{ fileId: HIDDEN, alt: '' }] }),
      ],
    },
    ACCENT,
  );
  expect(pageFiles(page)).toEqual([FILE, FILE]);
});

test('a first page says what the offer says, and holds the offer', () => {
  let next = 0;
  const page = firstPage('Bench days', 'Two days at the bench', () => `00000000-0000-4000-8000-00000000000${next++}`);
  const whole = completePage({ ...page }, ACCENT);
  expect(whole.blocks.some(({ kind }) => kind === 'offer')).toBe(true);
  expect(whole.blocks.find(({ kind }) => kind === 'heading')?.text).toBe('Bench days');
  expect(new Set(whole.blocks.map(({ id }) => id)).size).toBe(whole.blocks.length);
});

test('a moved block is where it was put, and nothing is lost or doubled', () => {
  const blocks = fc.uniqueArray(fc.uuid(), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(blocks, fc.nat(), fc.nat(), (ids, from, to) => {
      const before = ids.map((id) => newBlock(id, 'text'));
      const id = ids[from % ids.length] ?? '';
      const place = to % ids.length;
      const after = moved(before, id, place);
      expect(after.map((one) => one.id).sort()).toEqual([...ids].sort());
      expect(after[place]?.id).toBe(id);
    }),
  );
});
