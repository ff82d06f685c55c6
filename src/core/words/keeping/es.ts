import type { KeepingWords } from './en';

export const keepingEs: KeepingWords = {
  title: 'Qué se guarda de usted, y por qué',
  lead: (business) =>
    `${business} hace sus facturas y cobra con Dahlia. Esto es lo que se guarda de usted para ello, por qué y cuánto tiempo.`,
  what: 'Qué',
  why: 'Por qué',
  howLong: 'Cuánto tiempo',
  papers: 'Facturas, recibos, notas de abono y pagos, con su nombre y dirección',
  papersWhy: 'Las leyes fiscales y mercantiles obligan a la empresa a guardarlos.',
  papersLong: (years) => `${years} años completos después del año del que son`,
  contact: 'Su nombre, direcciones y teléfono, y lo que escribió a la empresa',
  contactWhy: 'Para que los documentos y las respuestas le lleguen.',
  contactLong: 'Hasta que usted o la empresa hagan borrarle',
  cards: 'Las cuatro últimas cifras de una tarjeta o cuenta, y que se pueda cargar en ella',
  cardsWhy:
    'Para que usted y la empresa sepan en cuál se cargó. El número entero solo lo tiene quien procesa los pagos.',
  cardsLong: 'Hasta que usted la retire',
  checkouts: 'Lo que escribió donde empezó a pagar y no lo hizo',
  checkoutsWhy: 'Para que pueda seguir donde lo dejó.',
  days: (days) => (days === 1 ? '1 día' : `${days} días`),
  mails: 'Lo que decían los correos que se le enviaron, y a qué dirección',
  mailsWhy: 'Para poder mostrar que se le avisó.',
  months: (months) => (months === 1 ? '1 mes' : `${months} meses`),
  erased:
    'Quien se borra desaparece de todas partes, salvo de los documentos que la ley obliga a guardar; de esos, cuando pasa su plazo. Lo que se vendió, y por cuánto, queda en los libros sin nombre.',
  backups: 'Las copias contra pérdidas se sustituyen al cabo de un tiempo; nadie trabaja con ellas.',
  rights:
    'Puede preguntar a la empresa qué guarda de usted, hacer que se corrija, llevárselo o hacer que se borre. Si cree que algo no está bien, también puede dirigirse a la autoridad de protección de datos que le corresponda.',
  ask: (business) => `Escribir a ${business}`,
  yours: 'Sus datos',
  yoursText:
    'Todo lo que se guarda de usted, en un solo archivo: sus documentos, y lo demás en una forma que leen los programas.',
  takeAlong: 'Llevármelos',
  seeWhat: 'Qué se guarda de usted, y por qué',
  readMe: (name, business, day) =>
    `Todo lo que ${business} guarda de ${name} con Dahlia, a ${day}.\n\nEn papers: facturas, notas de abono y recibos tal como salieron.\nEn files: lo que se entregó o se adjuntó.\nEn everything.json: todo lo demás, tabla por tabla. Los importes están en la unidad más pequeña de su moneda; los momentos, como los escribe ISO 8601.\n`,
  readMeOwn: 'Las notas que la empresa escribe para sí no están; pídaselas a ella.\n',
};
