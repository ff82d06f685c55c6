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
  readySubject: (house) => `Prêt à être retiré chez ${house}`,
  ready: 'Prêt à être retiré',
  readyLead:
    'Ce que vous avez acheté vous attend chez nous. Qui vient le chercher indique votre nom ou le numéro de l’achat.',
  readySee: 'Voir ce que c’est',
  toFetch: 'À retirer chez nous',
  fetched: (date, name) => `Retiré le ${date} par ${name}`,
};
