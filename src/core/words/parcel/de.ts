import type { ParcelWords } from './en';

/** Was Kunden über ihre Pakete lesen, auf Deutsch. */
export const parcelDe: ParcelWords = {
  states: {
    packed: 'Wird gepackt',
    moving: 'Unterwegs',
    door: 'Kommt heute',
    waiting: 'Liegt zur Abholung bereit',
    delivered: 'Angekommen',
    late: 'Später als versprochen',
    trouble: 'Unterwegs ging etwas schief; wir kümmern uns darum',
    back: 'Auf dem Weg zurück zu uns',
  },
  heading: 'Wo es ist',
  parcel: (at, of) => `Paket ${at} von ${of}`,
  inIt: 'Darin',
  number: 'Nummer',
  by: (service) => `Mit ${service}`,
  expected: (date) => `Soll am ${date} bei Ihnen sein`,
  expectedWas: (date) => `War für den ${date} versprochen`,
  arrived: (date) => `Angekommen am ${date}`,
  taken: (name) => `Angenommen von ${name}`,
  lastSeen: (place) => `Zuletzt: ${place}`,
  notYet: 'Noch ist nicht alles unterwegs; der Rest folgt.',
  subjects: {
    left: (house) => `Ihr Paket von ${house} ist unterwegs`,
    door: (house) => `Ihr Paket von ${house} kommt heute`,
    delivered: (house) => `Ihr Paket von ${house} ist angekommen`,
    late: (house) => `Ihr Paket von ${house} verspätet sich`,
  },
  leads: {
    left: 'Es ist unterwegs',
    door: 'Es kommt heute',
    delivered: 'Es ist angekommen',
    late: 'Es verspätet sich',
  },
  words: {
    left: (date) => `Es ging heute ab und soll bis ${date} bei Ihnen sein.`,
    door: 'Jemand sollte da sein, der es annimmt. Ist niemand da, hinterlässt der Zusteller, wo es abzuholen ist.',
    delivered: 'Der Zusteller hat es übergeben. Haben Sie es nicht erhalten, antworten Sie auf diese Mail.',
    late: (date) =>
      `Es war für den ${date} versprochen und ist noch nicht da. Wir behalten es im Auge; Sie müssen nichts tun.`,
  },
  see: 'Ansehen, wo es ist',
  slip: 'Packzettel',
  order: 'Bestellung',
  invoice: 'Rechnung',
  quantity: 'Menge',
  what: 'Was',
  restFollows: 'Der Rest folgt in einem weiteren Paket.',
};
