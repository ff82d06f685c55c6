import type { KeepingWords } from './en';

export const keepingFr: KeepingWords = {
  title: 'Ce qui est conservé sur vous, et pourquoi',
  lead: (business) =>
    `${business} rédige ses factures et reçoit ses paiements avec Dahlia. Voici ce qui est conservé sur vous pour cela, pourquoi et combien de temps.`,
  what: 'Quoi',
  why: 'Pourquoi',
  howLong: 'Combien de temps',
  papers: 'Factures, reçus, avoirs et paiements, avec votre nom et votre adresse',
  papersWhy: 'Le droit fiscal et commercial oblige l’entreprise à les conserver.',
  papersLong: (years) => `${years} années entières après l’année dont ils datent`,
  contact: 'Votre nom, vos adresses, votre téléphone et ce que vous avez écrit à l’entreprise',
  contactWhy: 'Pour que documents et réponses vous parviennent.',
  contactLong: 'Jusqu’à ce que vous ou l’entreprise vous fassiez effacer',
  cards: 'Les quatre derniers chiffres d’une carte ou d’un compte, et l’autorisation de les débiter',
  cardsWhy:
    'Pour que vous et l’entreprise sachiez lequel a été débité. Le numéro entier n’est connu que du prestataire de paiement.',
  cardsLong: 'Jusqu’à ce que vous les retiriez',
  checkouts: 'Ce que vous avez saisi là où vous avez commencé à payer sans le faire',
  checkoutsWhy: 'Pour que vous puissiez reprendre où vous en étiez.',
  days: (days) => (days === 1 ? '1 jour' : `${days} jours`),
  mails: 'Ce que disaient les courriels qui vous ont été envoyés, et à quelle adresse',
  mailsWhy: 'Pour pouvoir montrer que vous avez été informé.',
  months: (months) => `${months} mois`,
  erased:
    'Une personne effacée disparaît partout, sauf des documents que la loi oblige à conserver ; elle en disparaît quand leur délai est passé. Ce qui a été vendu, et pour combien, reste dans les comptes sans nom.',
  backups:
    'Les copies gardées contre les pertes sont remplacées après un certain temps ; personne ne travaille avec elles.',
  rights:
    'Vous pouvez demander à l’entreprise ce qu’elle conserve sur vous, le faire corriger, l’emporter ou le faire effacer. Si quelque chose vous paraît incorrect, vous pouvez aussi vous adresser à l’autorité de protection des données dont vous dépendez.',
  ask: (business) => `Écrire à ${business}`,
  yours: 'Vos données',
  yoursText:
    'Tout ce qui est conservé sur vous, en un seul fichier : vos documents, et le reste sous une forme lisible par des programmes.',
  takeAlong: 'Les emporter',
  seeWhat: 'Ce qui est conservé sur vous, et pourquoi',
  readMe: (name, business, day) =>
    `Tout ce que ${business} conserve avec Dahlia sur ${name}, au ${day}.\n\nDans papers : factures, avoirs et reçus tels qu’ils ont été envoyés.\nDans files : ce qui a été remis ou joint.\nDans everything.json : tout le reste, table par table. Les montants sont dans la plus petite unité de leur monnaie ; les instants sont écrits selon ISO 8601.\n`,
  readMeOwn: 'Les notes que l’entreprise prend pour elle-même n’y sont pas ; demandez-les-lui.\n',
};
