import { expect, test } from 'vitest';
import { approveFirstWords, waitsForWords } from '../words/approval-wording';
import { type FileDecision, fileStanding, filesByApprover } from './approval';

const ada = { id: 'a', name: 'Ada', email: 'ada@x.example' };
const bo = { id: 'b', name: 'Bo', email: 'bo@x.example' };
const file = (more: object = {}) => ({ id: 'f', name: 'plan.pdf', type: '', size: 1, approve: true, ...more });
const says = (
  approverId: string | null,
  decision: FileDecision['decision'] = 'approved',
  fileId = 'f',
): FileDecision => ({
  fileId,
  approverId,
  decision,
  byName: approverId ?? 'somebody',
  at: '2026-11-27T10:00:00Z',
});

test('without names one word of whoever has the link is enough, and a change asked for holds it up', () => {
  expect(fileStanding(file(), []).isOpen).toBe(true);
  expect(fileStanding(file(), [says(null)])).toMatchObject({ isOpen: false, waitsFor: [] });
  expect(fileStanding(file(), [says(null, 'change')]).isOpen).toBe(true);
  expect(fileStanding(file(), [says(null, 'approved', 'another')]).isOpen).toBe(true);
  expect(fileStanding(file({ approve: false }), [])).toMatchObject({ isOpen: false, waitsFor: [] });
});

test('with names each has to approve; nobody else counts, nor whoever has only the invoice’s link', () => {
  const named = file({ approvers: [ada, bo] });
  expect(fileStanding(named, [says(null)])).toMatchObject({ isOpen: true, said: [], waitsFor: [ada, bo] });
  expect(fileStanding(named, [says('a'), says('x')])).toMatchObject({ isOpen: true, waitsFor: [bo] });
  expect(fileStanding(named, [says('a'), says('b', 'change')])).toMatchObject({ isOpen: true, waitsFor: [bo] });
  expect(fileStanding(named, [says('a'), says('b')])).toMatchObject({ isOpen: false, waitsFor: [] });
});

test('each approver is asked once, about all files that are theirs', () => {
  const files = [
    file({ approvers: [ada, bo] }),
    file({ id: 'g', approvers: [bo] }),
    file({ id: 'h', approve: false, approvers: [ada] }),
  ];
  expect(filesByApprover(files).map(({ approver, files: mine }) => [approver.name, mine.map(({ id }) => id)])).toEqual([
    ['Ada', ['f']],
    ['Bo', ['f', 'g']],
  ]);
});

test('why nothing is paid yet is said to whoever reads it: their own approval, or whose', () => {
  const names = ['Pia', 'Noor'];
  expect(approveFirstWords([], 'en')).toBe('');
  expect(
    approveFirstWords(
      [
        { mine: false, names },
        { mine: true, names: [] },
      ],
      'en',
    ),
  ).toContain('your approval');
  expect(
    approveFirstWords(
      [
        { mine: false, names },
        { mine: false, names },
      ],
      'en',
    ),
  ).toMatch(/waits for Pia and Noor\.$/);
  for (const locale of ['de', 'fr', 'es']) expect(approveFirstWords([{ mine: false, names }], locale)).toContain('Pia');
  expect(waitsForWords([], 'en')).toBe('');
  expect(waitsForWords(['Pia', ''], 'en')).toBe('Waits for Pia and …');
});
