import type { DigitalWords } from './en';

/** Dasselbe auf Deutsch. */
export const digitalDe: DigitalWords = {
  subject: (house) => `Was Sie bei ${house} gekauft haben`,
  heading: 'Für Sie zum Herunterladen',
  lead: 'Es ist bezahlt, hier ist es.',
  see: 'Ansehen, was Ihnen gehört',
  download: 'Herunterladen',
  times: (count) => (count === 1 ? 'einmal' : `${count}-mal`),
  until: (date) => `bis ${date}`,
  left: (left) => (left === 1 ? 'noch einmal' : `noch ${left}-mal`),
  usedUp: 'So oft heruntergeladen, wie es möglich ist. Fragen Sie uns, wenn Sie es noch einmal brauchen.',
  over: 'Die Zeit dafür ist vorbei. Fragen Sie uns, wenn Sie es noch einmal brauchen.',
  readySubject: (house) => `Zum Abholen bereit bei ${house}`,
  ready: 'Zum Abholen bereit',
  readyLead: 'Was Sie gekauft haben, liegt für Sie bereit. Wer es abholt, nennt Ihren Namen oder die Nummer des Kaufs.',
  readySee: 'Ansehen, was es ist',
  toFetch: 'Bei uns abzuholen',
  fetched: (date, name) => `Am ${date} abgeholt von ${name}`,
};
