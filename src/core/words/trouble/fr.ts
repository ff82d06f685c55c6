import { voucherFr } from '../voucher/fr';
import type { TroubleCode } from './en';

export const troubleFr: Readonly<Record<TroubleCode, string>> = {
  'not-found': 'Cela n’est plus ici. Demandez à l’expéditeur.',
  'accept-first': 'Acceptez d’abord les conditions générales ; rien n’a été débité.',
  'approve-first': 'Un fichier attend votre accord. Regardez-le et approuvez-le avant de payer ; rien n’a été débité.',
  'already-paid': 'Cette facture est déjà payée. Rien n’a été débité.',
  'amount-changed': 'Le montant dû a changé. Regardez-le à nouveau avant de payer ; rien n’a été débité.',
  'asked-too-often': 'Plusieurs questions sont déjà en route. Attendez un moment, ou répondez plutôt au courriel.',
  'authorise-first': 'Sans votre autorisation, aucune carte n’est enregistrée. Donnez d’abord votre accord.',
  'card-not-kept':
    'Le prestataire n’a pas pu enregistrer cette carte. Rien n’a été débité : saisissez-la à nouveau, ou prenez-en une autre.',
  'charge-settled': 'Ce paiement est déjà réglé, ou en cours. Regardez à nouveau dans un instant.',
  'file-not-taken':
    'Ce type de fichier n’est pas accepté. PDF, PNG, JPEG, GIF, WebP, TIFF, DOCX, XLSX et CSV le sont ; enregistrez-le sous l’un d’eux.',
  'file-too-large': 'Ce fichier dépasse 10 Mo. Réduisez-le et choisissez-le à nouveau.',
  'invoice-not-payable': 'Cette facture ne peut plus être payée ici. Demandez à l’expéditeur.',
  'invoice-not-sent': 'Cette facture n’a pas encore été envoyée.',
  'link-over': 'Ce lien a expiré. Demandez-en un nouveau en haut de la page.',
  'no-card': 'Aucune carte enregistrée ne peut être débitée. Ajoutez-en d’abord une.',
  'not-a-robot':
    'Votre navigateur n’a pas pu montrer qu’une personne est à l’œuvre. Rechargez la page et réessayez ; rien n’a été débité.',
  'offer-not-open': 'Cela ne peut plus être payé. Rien n’a été débité.',
  'order-not-ready': 'Quelque chose est d’abord à revoir. Rien n’a été débité.',
  'payment-too-large': 'C’est plus que ce qui reste dû. Regardez le montant à nouveau.',
  'payment-under-way':
    'Un paiement de cette facture est en cours de vérification. Attendez son issue avant de réessayer.',
  'plan-ended': 'Ce plan de facturation est terminé ou a été retiré. Demandez à l’expéditeur.',
  'plan-not-ready': 'Quelque chose du plan de facturation est d’abord à revoir.',
  'processor-silent': 'Le prestataire de paiement ne répond pas pour l’instant. Réessayez dans un moment.',
  'request-ended': 'Cette demande a été retirée ou est déjà payée. Rien n’a été débité.',
  'voucher-blocked': voucherFr.problems['voucher-blocked'],
  'voucher-currency': voucherFr.problems['voucher-currency'],
  'voucher-over': voucherFr.problems['voucher-over'],
  'voucher-unknown': voucherFr.problems['voucher-unknown'],
  'voucher-used-up': voucherFr.problems['voucher-used-up'],
  'too-many-attempts': 'Trop de cartes ont été essayées. Rien n’a été débité : attendez un moment, puis réessayez.',
  unreachable: 'Pas de connexion. Ce que vous avez saisi est gardé ; réessayez dans un instant.',
  trouble:
    'Quelque chose n’a pas marché ici, pas chez vous. Ce que vous avez saisi est gardé ; réessayez dans un instant.',
  malformed: 'Quelque chose de saisi ne peut être lu. Regardez-le à nouveau.',
};
