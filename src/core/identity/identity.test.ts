import { expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { isOpen, type Member, memberProblems, missingPictures } from './identity';

const TODAY = '2026-03-01' as CalendarDate;
const ada: Member = {
  id: 'a',
  name: 'Ada Thistlewood',
  born: '1980-05-01',
  country: 'US',
  position: 'Owner',
  share: 60,
  acts: true,
};
const bram: Member = { ...ada, id: 'b', name: 'Bram Quillon', position: '', share: 40, acts: false };
const wrong = (...members: Member[]) => memberProblems(members, TODAY).map(({ field }) => field);

test('one acts, others hold more than a quarter, together no more than all', () => {
  expect(wrong(ada, bram)).toEqual([]);
  expect(wrong({ ...ada, share: 0 })).toEqual([]);
  expect(wrong(ada, { ...bram, share: 25 })).toEqual(['members.1.share']);
  expect(wrong(ada, { ...bram, share: 26 })).toEqual([]);
  expect(wrong(ada, { ...bram, share: 41 })).toEqual(['members']);
  expect(wrong(ada, { ...bram, acts: true, position: 'Partner' })).toEqual(['members']);
  expect(wrong()).toEqual(['members']);
});

test('a name is whole in any script, and a day of birth is that of a grown person who lives', () => {
  expect(wrong({ ...ada, name: 'Ada' }, bram)).toEqual(['members.0.name']);
  expect(wrong({ ...ada, name: '竹下 真理' }, bram)).toEqual([]);
  expect(wrong({ ...ada, name: 'عائشة بنت' }, bram)).toEqual([]);
  const born = (day: string) => wrong({ ...ada, born: day }, bram);
  expect([born(''), born('2008-03-02'), born('1900-01-01')]).toEqual(Array(3).fill(['members.0.born']));
  expect([born('2008-03-01'), born('1906-03-01')]).toEqual([[], []]);
  expect(memberProblems([{ ...ada, born: '2008-02-29' }], '2026-02-28' as CalendarDate)).toHaveLength(1);
});

test('a document of everybody, the face of who acts; nothing can be changed while somebody looks at it', () => {
  const all = missingPictures([ada, bram], () => false);
  expect(all.map(({ memberId, side }) => `${memberId} ${side}`)).toEqual(['a front', 'a live', 'b front']);
  expect(missingPictures([ada, bram], (id) => id === 'a')).toHaveLength(1);
  expect(missingPictures([ada, bram], (_, side) => side !== 'back')).toEqual([]);
  expect([null, 'asked', 'refused', 'checking', 'accepted'].map((state) => isOpen(state as never))).toEqual([
    true,
    true,
    true,
    false,
    false,
  ]);
});
