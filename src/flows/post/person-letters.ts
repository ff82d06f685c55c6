/** Letters of Dahlia's own to who signs in: what they show by mail, and what happened to their way in. */
import { clockTime, longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { holdsText } from '@/core/person/rights';
import { invitationById } from '@/db/invitations';
import { proofOf } from '@/db/mail-proofs';
import { letter } from '@/documents/mail/letter';
import { figuresOf, GOOD_HOURS, linkOf } from '@/flows/house/mail-proof';
import { invitationLink } from '@/flows/house/people';
import { programName } from '@/outside/programs';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

/** Nothing that whoever signed up has typed stands in these: they could be anybody, and the address anybody's. */
const ours = (of: {
  readonly subject: string;
  readonly sum: string;
  readonly under: string;
  readonly words: readonly string[];
  readonly button?: { readonly words: string; readonly link: string };
  readonly last: string;
}): Written => ({
  ...letter({
    ...of,
    locale: 'en',
    seller: { name: 'Dahlia', address: [], phone: '', email: '', website: '', taxNumber: '' },
    accent: '#6B2451',
    lead: '',
    rows: [],
  }),
  files: [],
});

const NOT_YOU = 'If this was not you, do nothing: without it nothing comes of it.';

/** The six figures and the link; null where they were asked for anew, or are used. */
export async function confirmMail({ ctx, message }: Subject): Promise<Written | null> {
  const proof = await ctx.read((db) => proofOf(db, 'confirm', message.details.personId ?? ''));
  if (!proof || proof.usedAt || proof.email !== message.toAddress) return null;
  return ours({
    subject: 'Confirm your address',
    sum: figuresOf(ctx.businessId, proof).replace(/^(...)/, '$1 '),
    under: `good for ${GOOD_HOURS.confirm} hours`,
    words: ['Type these six figures where you began, or follow the link. Then what you write can be sent.'],
    button: {
      words: 'Confirm the address',
      link: `${services().publicUrl}/confirm/${linkOf('confirm', ctx.businessId, proof)}`,
    },
    last: NOT_YOU,
  });
}

/** The link under which a new password is chosen. */
export async function passwordLinkMail({ ctx, message }: Subject): Promise<Written | null> {
  const proof = await ctx.read((db) => proofOf(db, 'password', message.details.personId ?? ''));
  if (!proof || proof.usedAt || proof.email !== message.toAddress) return null;
  return ours({
    subject: 'A new password',
    sum: 'Choose a new password',
    under: 'good once, for an hour',
    words: ['Somebody asked for a new password for this address.'],
    button: {
      words: 'Choose it',
      link: `${services().publicUrl}/password/${linkOf('password', ctx.businessId, proof)}`,
    },
    last: 'If this was not you, do nothing: your password stays as it is.',
  });
}

export const passwordChangedMail = async (_subject: Subject): Promise<Written> =>
  ours({
    subject: 'Your password was changed',
    sum: 'Your password was changed',
    under: '',
    words: ['It was chosen anew by a link that was sent here. You are signed out everywhere.'],
    button: { words: 'Sign in', link: `${services().publicUrl}/sign-in` },
    last: 'If this was not you, ask for a new password at once, and change that of your mail.',
  });

/** Somebody signed in from a computer that was not known of them. */
export const newSignInMail = async ({ ctx, message, business }: Subject): Promise<Written> => {
  const { agent = '', address = '' } = message.details;
  return ours({
    subject: 'Signed in from a new place',
    sum: programName(agent),
    under: `${longDate(dateInZone(ctx.now, business.zone), business.locale)}, ${clockTime(ctx.now, business.zone)}`,
    words: [`Somebody signed in with your password${address ? `, from the network address ${address}` : ''}.`],
    button: { words: 'Look where you are signed in', link: `${services().publicUrl}/settings/you` },
    last: 'If this was not you, choose a new password there: it ends all other sessions.',
  });
};

/** Asks somebody to work in a business; null where it was withdrawn, accepted, or sent anew. */
export async function invitationMail({ ctx, message, business }: Subject): Promise<Written | null> {
  const invitation = await ctx.read((db) => invitationById(db, message.details.invitationId ?? ''));
  if (invitation?.state !== 'open' || !message.details.nonce || message.details.nonce !== invitation.nonce) return null;
  const link = `${services().publicUrl}/invitation/${invitationLink(ctx.businessId, invitation)}`;
  return ours({
    subject: `${invitation.byName} asks you to work in ${business.name}`,
    sum: business.name,
    under: `as ${holdsText(invitation).toLowerCase()}`,
    words: [`${invitation.byName} asks you to work with them. The link is good for seven days.`],
    button: { words: 'Look at it', link },
    last: 'If you do not know them, do nothing: without you nothing comes of it.',
  });
}
