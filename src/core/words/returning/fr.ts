import type { ReturningWords } from './en';

/** La même chose en français. */
export const returningFr: ReturningWords = {
  heading: 'Renvoyer quelque chose',
  about: 'Choisissez ce qui revient, et pourquoi. Nous répondons par e-mail.',
  howMany: 'Combien reviennent',
  why: 'Pourquoi',
  wordsLabel: 'Un mot à ce sujet (facultatif)',
  picture: 'Une photo (facultatif)',
  ask: 'Demander à le renvoyer',
  asked: 'Nous l’avons bien reçu et répondons bientôt.',
  reasons: {
    'does-not-fit': 'Cela ne convient pas',
    'not-as-described': 'Ce n’est pas conforme à la description',
    damaged: 'C’est arrivé abîmé',
    'wrong-thing': 'Ce n’est pas le bon article',
    'not-wanted': 'Je n’en veux plus',
    other: 'Une autre raison',
  },
  states: {
    asked: 'Demandé ; nous répondons bientôt',
    allowed: 'Accepté : renvoyez-le',
    refused: 'Retour refusé',
    received: 'C’est arrivé chez nous',
    closed: 'Terminé',
  },
  label: 'Étiquette de retour',
  labelHow: 'Imprimez-la et collez-la sur le colis.',
  formHow: 'La deuxième page est pour la douane : datez-la, signez-la et collez-la aussi sur le colis.',
  subject: (house) => `Votre retour à ${house}`,
  allowed: 'Vous pouvez le renvoyer',
  refused: 'Nous ne le reprenons pas',
  allowedHow: 'Renvoyez-le sous deux semaines. Ce qui a été payé vous est rendu dès que nous l’avons examiné.',
  refusedHow: 'Nous avons lu votre demande et ne le reprenons pas.',
  see: 'Le voir',
  seeLabel: 'Le voir, avec l’étiquette',
};
