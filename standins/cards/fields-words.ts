/** What the processor's own fields say, in the languages that a merchant may ask for. */
const en = {
  title: 'Card fields',
  what: 'What is charged',
  card: 'Card',
  bank: 'Bank account',
  number: 'Card number',
  expiry: 'Good until',
  expiryAs: 'MM / YY',
  code: 'Security number',
  account: 'Account number',
  holder: 'Holder',
  numberDigits: 'A card number has 16 digits.',
  numberPretend: 'Only the pretend cards work here.',
  expiryWrong: 'Write month and year, as 04/29.',
  expired: 'This card has expired.',
  codeDigits: 'Three digits, on the back.',
  accountDigits: 'An account number has 12 digits.',
  accountPretend: 'Only the pretend accounts work here.',
  holderMissing: 'Write whose account it is.',
};
export type FieldsWords = typeof en;

const de: FieldsWords = {
  title: 'Kartenfelder',
  what: 'Was belastet wird',
  card: 'Karte',
  bank: 'Bankkonto',
  number: 'Kartennummer',
  expiry: 'Gültig bis',
  expiryAs: 'MM / JJ',
  code: 'Prüfnummer',
  account: 'Kontonummer',
  holder: 'Inhaber',
  numberDigits: 'Eine Kartennummer hat 16 Ziffern.',
  numberPretend: 'Hier gelten nur die Probekarten.',
  expiryWrong: 'Schreiben Sie Monat und Jahr, etwa 04/29.',
  expired: 'Diese Karte ist abgelaufen.',
  codeDigits: 'Drei Ziffern, auf der Rückseite.',
  accountDigits: 'Eine Kontonummer hat 12 Ziffern.',
  accountPretend: 'Hier gelten nur die Probekonten.',
  holderMissing: 'Schreiben Sie, wessen Konto es ist.',
};

const fr: FieldsWords = {
  title: 'Champs de la carte',
  what: 'Ce qui est débité',
  card: 'Carte',
  bank: 'Compte bancaire',
  number: 'Numéro de carte',
  expiry: 'Valable jusqu’à',
  expiryAs: 'MM / AA',
  code: 'Cryptogramme',
  account: 'Numéro de compte',
  holder: 'Titulaire',
  numberDigits: 'Un numéro de carte a 16 chiffres.',
  numberPretend: 'Seules les cartes d’essai marchent ici.',
  expiryWrong: 'Écrivez le mois et l’année, comme 04/29.',
  expired: 'Cette carte a expiré.',
  codeDigits: 'Trois chiffres, au dos.',
  accountDigits: 'Un numéro de compte a 12 chiffres.',
  accountPretend: 'Seuls les comptes d’essai marchent ici.',
  holderMissing: 'Écrivez à qui est le compte.',
};

const es: FieldsWords = {
  title: 'Campos de la tarjeta',
  what: 'Qué se carga',
  card: 'Tarjeta',
  bank: 'Cuenta bancaria',
  number: 'Número de tarjeta',
  expiry: 'Válida hasta',
  expiryAs: 'MM / AA',
  code: 'Cód. seguridad',
  account: 'Número de cuenta',
  holder: 'Titular',
  numberDigits: 'Un número de tarjeta tiene 16 cifras.',
  numberPretend: 'Aquí solo valen las tarjetas de prueba.',
  expiryWrong: 'Escriba mes y año, como 04/29.',
  expired: 'Esta tarjeta ha caducado.',
  codeDigits: 'Tres cifras, en el reverso.',
  accountDigits: 'Un número de cuenta tiene 12 cifras.',
  accountPretend: 'Aquí solo valen las cuentas de prueba.',
  holderMissing: 'Escriba de quién es la cuenta.',
};

export const FIELDS_WORDS = { en, de, fr, es } as const;
export type FieldsLanguage = keyof typeof FIELDS_WORDS;

/** The language asked for, or English. */
export const fieldsLanguage = (asked: string): FieldsLanguage =>
  Object.hasOwn(FIELDS_WORDS, asked) ? (asked as FieldsLanguage) : 'en';
