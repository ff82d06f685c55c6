/** The usual wording, until the business writes its own: `{business}`, `{customer}` and `{what}` are filled in. */
export const USUAL_AUTHORISATION: Readonly<Record<'en' | 'de' | 'es' | 'fr', string>> = {
  en: 'I, {customer}, allow {business} to charge my card or bank account for {what}. I can withdraw this at any time; nothing is charged after that. Refunds are made the same way.',
  de: 'Ich, {customer}, erlaube {business}, meine Karte oder mein Bankkonto zu belasten für: {what}. Ich kann dies jederzeit widerrufen; danach wird nichts mehr belastet. Erstattungen gehen denselben Weg zurück.',
  es: 'Yo, {customer}, autorizo a {business} a cargar en mi tarjeta o cuenta bancaria: {what}. Puedo retirar esta autorización en cualquier momento; después no se carga nada más. Los reembolsos se hacen por la misma vía.',
  fr: 'Je soussigné(e), {customer}, autorise {business} à débiter ma carte ou mon compte bancaire pour : {what}. Je peux retirer cette autorisation à tout moment ; rien n’est débité ensuite. Les remboursements se font par la même voie.',
};

/** A wording with what it is about filled in. */
export const filledAuthorisation = (
  wording: string,
  about: { readonly business: string; readonly customer: string; readonly what: string },
): string =>
  wording
    .replaceAll('{business}', about.business)
    .replaceAll('{customer}', about.customer)
    .replaceAll('{what}', about.what);
