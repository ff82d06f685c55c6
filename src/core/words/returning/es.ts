import type { ReturningWords } from './en';

/** Lo mismo en español. */
export const returningEs: ReturningWords = {
  heading: 'Devolver algo',
  about: 'Elija qué vuelve y por qué. Respondemos por correo.',
  howMany: 'Cuántos vuelven',
  why: 'Por qué',
  wordsLabel: 'Unas palabras (opcional)',
  picture: 'Una foto (opcional)',
  ask: 'Pedir la devolución',
  asked: 'Lo tenemos y respondemos pronto.',
  reasons: {
    'does-not-fit': 'No queda bien',
    'not-as-described': 'No es como se describe',
    damaged: 'Llegó dañado',
    'wrong-thing': 'No es lo correcto',
    'not-wanted': 'Ya no lo quiero',
    other: 'Otro motivo',
  },
  states: {
    asked: 'Pedido; respondemos pronto',
    allowed: 'Aceptado: envíenoslo',
    refused: 'No se acepta',
    received: 'Ha llegado a nuestro local',
    closed: 'Hecho',
  },
  label: 'Etiqueta de devolución',
  labelHow: 'Imprímala y péguela en el paquete.',
  formHow: 'La segunda página es para la aduana: féchela, fírmela y péguela también en el paquete.',
  subject: (house) => `Su devolución a ${house}`,
  allowed: 'Puede devolverlo',
  refused: 'No lo aceptamos de vuelta',
  allowedHow: 'Envíenoslo en dos semanas. Lo pagado se devuelve en cuanto lo hayamos revisado.',
  refusedHow: 'Hemos leído lo que escribió y no lo aceptamos de vuelta.',
  see: 'Verlo',
  seeLabel: 'Verlo, con la etiqueta',
};
