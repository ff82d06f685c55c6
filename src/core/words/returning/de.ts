import type { ReturningWords } from './en';

/** Dasselbe auf Deutsch. */
export const returningDe: ReturningWords = {
  heading: 'Etwas zurückschicken',
  about: 'Wählen Sie, was zurückkommt, und warum. Wir antworten per E-Mail.',
  howMany: 'Wie viele zurückkommen',
  why: 'Warum',
  wordsLabel: 'Ein Wort dazu (nicht nötig)',
  picture: 'Ein Bild (nicht nötig)',
  ask: 'Um Rücksendung bitten',
  asked: 'Wir haben es und antworten bald.',
  reasons: {
    'does-not-fit': 'Es passt nicht',
    'not-as-described': 'Es ist nicht wie beschrieben',
    damaged: 'Es kam beschädigt an',
    'wrong-thing': 'Es ist das Falsche',
    'not-wanted': 'Ich möchte es nicht mehr',
    other: 'Ein anderer Grund',
  },
  states: {
    asked: 'Angefragt; wir antworten bald',
    allowed: 'Erlaubt: schicken Sie es zurück',
    refused: 'Nicht zurückgenommen',
    received: 'Es ist bei uns angekommen',
    closed: 'Erledigt',
  },
  label: 'Rücksendeetikett',
  labelHow: 'Drucken Sie es aus und kleben Sie es auf das Paket.',
  formHow: 'Die zweite Seite ist für den Zoll: mit Datum unterschreiben und ebenfalls auf das Paket kleben.',
  subject: (house) => `Ihre Rücksendung an ${house}`,
  allowed: 'Sie können es zurückschicken',
  refused: 'Wir nehmen es nicht zurück',
  allowedHow:
    'Schicken Sie es uns innerhalb von zwei Wochen. Was dafür bezahlt wurde, bekommen Sie zurück, sobald wir es angesehen haben.',
  refusedHow: 'Wir haben angesehen, was Sie geschrieben haben, und nehmen es nicht zurück.',
  see: 'Ansehen',
  seeLabel: 'Ansehen, mit dem Etikett',
};
