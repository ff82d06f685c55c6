const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** The picture over a payment link's page and in what chats show of it; null without one, whatever was kept. */
export const linkPicture = (look: Readonly<Record<string, unknown>>): string | null =>
  typeof look.picture === 'string' && ID.test(look.picture) ? look.picture : null;
