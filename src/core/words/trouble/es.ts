import type { TroubleCode } from './en';

export const troubleEs: Readonly<Record<TroubleCode, string>> = {
  'not-found': 'Esto ya no está aquí. Pregunte al remitente.',
  'accept-first': 'Acepte primero las condiciones; no se cobró nada.',
  'approve-first': 'Un archivo espera su aprobación. Mírelo y apruébelo antes de pagar; no se cobró nada.',
  'already-paid': 'Esta factura ya está pagada. No se cobró nada.',
  'amount-changed': 'El importe pendiente ha cambiado. Mírelo de nuevo antes de pagar; no se cobró nada.',
  'asked-too-often': 'Ya hay varias preguntas en camino. Espere un rato, o responda al correo.',
  'authorise-first': 'Sin su autorización no se guarda ninguna tarjeta. Dé primero su conformidad.',
  'card-not-kept': 'El procesador no pudo guardar esta tarjeta. No se cobró nada: escríbala de nuevo, o use otra.',
  'charge-settled': 'Este pago ya está resuelto, o en curso ahora mismo. Mírelo de nuevo en un momento.',
  'file-not-taken':
    'Este tipo de archivo no se acepta. PDF, PNG, JPEG, GIF, WebP, TIFF, DOCX, XLSX y CSV sí; guárdelo como uno de ellos.',
  'file-too-large': 'Este archivo pasa de 10 MB. Hágalo más pequeño y elíjalo de nuevo.',
  'invoice-not-payable': 'Esta factura ya no se puede pagar aquí. Pregunte a quien la envió.',
  'invoice-not-sent': 'Esta factura aún no se ha enviado.',
  'link-over': 'Este enlace ha caducado. Pida uno nuevo arriba en la página.',
  'no-card': 'No hay ninguna tarjeta guardada que se pueda cobrar. Añada una primero.',
  'not-a-robot':
    'Su navegador no pudo mostrar que hay una persona. Recargue la página e inténtelo de nuevo; no se cobró nada.',
  'offer-not-open': 'Esto ya no se puede pagar. No se cobró nada.',
  'order-not-ready': 'Algo necesita antes una mirada. No se cobró nada.',
  'payment-too-large': 'Es más de lo que queda pendiente. Mire de nuevo el importe.',
  'payment-under-way': 'Se está comprobando un pago de esta factura. Espere su resultado antes de intentarlo de nuevo.',
  'plan-ended': 'Este plan de cobro ha terminado o se retiró. Pregunte a quien lo envió.',
  'plan-not-ready': 'Algo del plan de cobro necesita antes una mirada.',
  'processor-silent': 'El procesador de pagos no responde ahora mismo. Inténtelo de nuevo dentro de un rato.',
  'request-ended': 'Esta solicitud se retiró o ya está pagada. No se cobró nada.',
  'too-many-attempts': 'Se probaron demasiadas tarjetas. No se cobró nada: espere un rato e inténtelo de nuevo.',
  unreachable: 'Sin conexión. Lo que escribió se conserva; inténtelo de nuevo en un momento.',
  trouble: 'Algo falló aquí, no por su parte. Lo que escribió se conserva; inténtelo de nuevo en un momento.',
  malformed: 'Algo de lo escrito no se puede leer. Mírelo de nuevo.',
};
