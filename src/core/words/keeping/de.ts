import type { KeepingWords } from './en';

export const keepingDe: KeepingWords = {
  title: 'Was von Ihnen aufbewahrt wird, und warum',
  lead: (business) =>
    `${business} schreibt Rechnungen und nimmt Zahlungen mit Dahlia an. Das wird dafür von Ihnen aufbewahrt, aus diesem Grund und so lange.`,
  what: 'Was',
  why: 'Warum',
  howLong: 'Wie lange',
  papers: 'Rechnungen, Quittungen, Gutschriften und Zahlungen, mit Ihrem Namen und Ihrer Anschrift darauf',
  papersWhy: 'Steuer- und Handelsrecht verlangen vom Betrieb, sie aufzubewahren.',
  papersLong: (years) => `${years} volle Jahre nach dem Jahr, aus dem sie sind`,
  contact: 'Ihr Name, Ihre Adressen und Telefonnummer und was Sie dem Betrieb geschrieben haben',
  contactWhy: 'Damit Belege und Antworten Sie erreichen.',
  contactLong: 'Bis Sie oder der Betrieb Sie löschen lassen',
  cards: 'Die letzten vier Ziffern einer Karte oder eines Kontos, und dass sie belastet werden dürfen',
  cardsWhy: 'Damit Sie und der Betrieb wissen, welche belastet wurde. Die ganze Nummer hat allein der Kartenabwickler.',
  cardsLong: 'Bis Sie sie entfernen',
  checkouts: 'Was Sie eingegeben haben, wo Sie zu zahlen begannen und es nicht taten',
  checkoutsWhy: 'Damit Sie dort weitermachen können.',
  days: (days) => (days === 1 ? '1 Tag' : `${days} Tage`),
  mails: 'Was in E-Mails an Sie stand, und an welche Adresse sie gingen',
  mailsWhy: 'Damit sich zeigen lässt, dass es Ihnen gesagt wurde.',
  months: (months) => (months === 1 ? '1 Monat' : `${months} Monate`),
  erased:
    'Wer gelöscht wird, verschwindet überall, nur nicht von Belegen, die das Gesetz aufbewahrt haben will; von diesen, sobald ihre Zeit um ist. Was verkauft wurde und für wie viel, bleibt ohne Namen in den Büchern.',
  backups: 'Kopien gegen Verlust werden nach einiger Zeit überschrieben; mit ihnen arbeitet niemand.',
  rights:
    'Sie dürfen den Betrieb fragen, was er von Ihnen aufbewahrt, es berichtigen lassen, mitnehmen oder löschen lassen. Wenn Sie meinen, dass etwas nicht recht ist, dürfen Sie sich auch an die Datenschutzbehörde wenden, die für Sie zuständig ist.',
  ask: (business) => `${business} fragen`,
  yours: 'Ihre Daten',
  yoursText:
    'Alles, was von Ihnen aufbewahrt wird, in einer Datei: Ihre Belege, und das Übrige so, dass Programme es lesen.',
  takeAlong: 'Mitnehmen',
  seeWhat: 'Was von Ihnen aufbewahrt wird, und warum',
  readMe: (name, business, day) =>
    `Alles, was ${business} mit Dahlia von ${name} aufbewahrt, Stand ${day}.\n\nIn papers: Rechnungen, Gutschriften und Quittungen, wie sie hinausgingen.\nIn files: was eingereicht oder mitgeschickt wurde.\nIn everything.json: alles Übrige, Tabelle für Tabelle. Beträge stehen in der kleinsten Einheit ihrer Währung, Zeitpunkte so, wie ISO 8601 sie schreibt.\n`,
  readMeOwn: 'Was der Betrieb für sich selbst notiert, ist nicht dabei; fragen Sie ihn danach.\n',
};
