import type { ReturnReason, ReturnState } from '../../parcel/returning';

/** What customers read of sending something back, in English. */
export const returningEn = {
  heading: 'Send something back',
  about: 'Choose what comes back, and why. We answer by mail.',
  howMany: 'How many come back',
  why: 'Why',
  wordsLabel: 'A word about it (not needed)',
  picture: 'A picture (not needed)',
  ask: 'Ask to send it back',
  asked: 'We have it, and answer soon.',
  reasons: {
    'does-not-fit': 'It does not fit',
    'not-as-described': 'It is not as described',
    damaged: 'It came damaged',
    'wrong-thing': 'It is the wrong thing',
    'not-wanted': 'I do not want it any more',
    other: 'Another reason',
  } satisfies Record<ReturnReason, string> as Readonly<Record<ReturnReason, string>>,
  states: {
    asked: 'Asked for; we answer soon',
    allowed: 'Allowed: send it back',
    refused: 'Not taken back',
    received: 'It has arrived with us',
    closed: 'Done',
  } satisfies Record<ReturnState, string> as Readonly<Record<ReturnState, string>>,
  label: 'Return label',
  labelHow: 'Print it, and put it on the parcel.',
  formHow: 'Its second page is for customs: date it, sign it, and put it on the parcel too.',
  subject: (house: string) => `What you want to send back to ${house}`,
  allowed: 'You can send it back',
  refused: 'We do not take it back',
  allowedHow: 'Send it to us within two weeks. What was paid for it is given back once we have looked at it.',
  refusedHow: 'We have looked at what you wrote, and do not take it back.',
  see: 'See it',
  seeLabel: 'See it, and the label',
};

export type ReturningWords = typeof returningEn;
