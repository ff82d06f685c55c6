import type { ParcelWords } from './en';

/** Ce que les clients lisent de leurs colis, en français. */
export const parcelFr: ParcelWords = {
  states: {
    packed: 'En préparation',
    moving: 'En route',
    door: 'Arrive aujourd’hui',
    waiting: 'À retirer',
    delivered: 'Remis',
    late: 'Plus tard que promis',
    trouble: 'Un incident est survenu en route ; nous nous en occupons',
    back: 'Revient chez nous',
  },
  heading: 'Où il se trouve',
  parcel: (at, of) => `Colis ${at} sur ${of}`,
  inIt: 'Dedans',
  number: 'Numéro',
  by: (service) => `Par ${service}`,
  expected: (date) => `Devrait arriver chez vous le ${date}`,
  expectedWas: (date) => `Était promis pour le ${date}`,
  arrived: (date) => `Arrivé le ${date}`,
  taken: (name) => `Reçu par ${name}`,
  lastSeen: (place) => `Vu en dernier : ${place}`,
  notYet: 'Tout n’est pas encore parti ; le reste suit.',
  subjects: {
    left: (house) => `Votre colis de ${house} est en route`,
    door: (house) => `Votre colis de ${house} arrive aujourd’hui`,
    delivered: (house) => `Votre colis de ${house} est arrivé`,
    late: (house) => `Votre colis de ${house} a du retard`,
  },
  leads: { left: 'Il est parti', door: 'Il arrive aujourd’hui', delivered: 'Il est arrivé', late: 'Il a du retard' },
  words: {
    left: (date) => `Il est parti aujourd’hui et devrait être chez vous d’ici le ${date}.`,
    door: 'Quelqu’un devrait être là pour le recevoir. Sinon, le transporteur indique où le retirer.',
    delivered: 'Le transporteur l’a remis. Si vous ne l’avez pas reçu, répondez à ce message.',
    late: (date) =>
      `Il était promis pour le ${date} et n’est pas encore là. Nous le suivons ; vous n’avez rien à faire.`,
  },
  see: 'Voir où il se trouve',
  slip: 'Bordereau de colisage',
  order: 'Commande',
  invoice: 'Facture',
  quantity: 'Quantité',
  what: 'Quoi',
  restFollows: 'Le reste suit dans un autre colis.',
};
