import type { ParcelWords } from './en';

/** Lo que los clientes leen de sus paquetes, en español. */
export const parcelEs: ParcelWords = {
  states: {
    packed: 'Se está preparando',
    moving: 'En camino',
    door: 'Llega hoy',
    waiting: 'Espera a que se recoja',
    delivered: 'Entregado',
    late: 'Más tarde de lo prometido',
    trouble: 'Algo salió mal en el camino; lo estamos mirando',
    back: 'Vuelve a nosotros',
  },
  heading: 'Dónde está',
  parcel: (at, of) => `Paquete ${at} de ${of}`,
  inIt: 'Dentro',
  number: 'Número',
  by: (service) => `Con ${service}`,
  expected: (date) => `Debería estar con usted el ${date}`,
  expectedWas: (date) => `Estaba prometido para el ${date}`,
  arrived: (date) => `Llegó el ${date}`,
  taken: (name) => `Recibido por ${name}`,
  lastSeen: (place) => `Visto por última vez: ${place}`,
  notYet: 'Aún no ha salido todo; el resto viene después.',
  subjects: {
    left: (house) => `Su paquete de ${house} está en camino`,
    door: (house) => `Su paquete de ${house} llega hoy`,
    delivered: (house) => `Su paquete de ${house} ha llegado`,
    late: (house) => `Su paquete de ${house} se retrasa`,
  },
  leads: { left: 'Ha salido', door: 'Llega hoy', delivered: 'Ha llegado', late: 'Se retrasa' },
  words: {
    left: (date) => `Salió hoy y debería estar con usted antes del ${date}.`,
    door: 'Alguien debería estar para recibirlo. Si no, el transportista deja dicho dónde recogerlo.',
    delivered: 'El transportista lo ha entregado. Si no lo tiene, responda a este mensaje.',
    late: (date) =>
      `Estaba prometido para el ${date} y aún no ha llegado. Lo seguimos de cerca; no tiene que hacer nada.`,
  },
  see: 'Ver dónde está',
  slip: 'Albarán',
  order: 'Pedido',
  invoice: 'Factura',
  quantity: 'Cantidad',
  what: 'Qué',
  restFollows: 'El resto viene en otro paquete.',
};
