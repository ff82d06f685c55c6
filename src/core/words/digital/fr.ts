import type { DigitalWords } from './en';

/** La même chose en français. */
export const digitalFr: DigitalWords = {
  subject: (house) => `Ce que vous avez acheté chez ${house}`,
  heading: 'À télécharger',
  lead: 'C’est payé, le voici.',
  see: 'Voir ce qui est à vous',
  download: 'Télécharger',
  times: (count) => (count === 1 ? 'une fois' : `${count} fois`),
  until: (date) => `jusqu’au ${date}`,
  left: (left) => (left === 1 ? 'encore un téléchargement' : `encore ${left} téléchargements`),
  usedUp: 'Téléchargé autant de fois que possible. Demandez-nous s’il vous le faut encore.',
  over: 'Le délai est passé. Demandez-nous s’il vous le faut encore.',
  toFetch: 'À retirer chez nous',
  fetched: (date, name) => `Retiré le ${date} par ${name}`,
};
