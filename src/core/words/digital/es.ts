import type { DigitalWords } from './en';

/** Lo mismo en español. */
export const digitalEs: DigitalWords = {
  subject: (house) => `Lo que compró en ${house}`,
  heading: 'Para descargar',
  lead: 'Está pagado, aquí lo tiene.',
  see: 'Ver lo que es suyo',
  download: 'Descargar',
  times: (count) => (count === 1 ? 'una vez' : `${count} veces`),
  until: (date) => `hasta el ${date}`,
  left: (left) => (left === 1 ? 'queda una descarga' : `quedan ${left} descargas`),
  usedUp: 'Descargado tantas veces como se puede. Pídanoslo si lo necesita otra vez.',
  over: 'El plazo terminó. Pídanoslo si lo necesita otra vez.',
  readySubject: (house) => `Listo para recoger en ${house}`,
  ready: 'Listo para recoger',
  readyLead:
    'Lo que compró le espera en nuestro local. Quien venga a recogerlo nos dice su nombre o el número de la compra.',
  readySee: 'Ver qué es',
  toFetch: 'Para recoger en nuestro local',
  fetched: (date, name) => `Recogido el ${date} por ${name}`,
};
