/** Letters of Dahlia's own to who signs in: what they show by mail, and what happened to their way in. */
import { isCalendarDate } from '@/core/dates/calendar-date';
import { clockTime, longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { CHECK_REASONS, KEPT_DAYS } from '@/core/identity/identity';
import { holdsText } from '@/core/person/rights';
import { LOST_DAYS } from '@/core/person/steps';
import { invitationById } from '@/db/invitations';
import { proofOf } from '@/db/mail-proofs';
import { letter, type Row } from '@/documents/mail/letter';
import { figuresOf, GOOD_HOURS, linkOf } from '@/flows/house/mail-proof';
import { invitationLink } from '@/flows/house/people';
import { programName } from '@/outside/programs';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

/** Nothing that whoever signed up has typed stands in these: they could be anybody, and the address anybody's. */
export const ours = (of: {
  readonly subject: string;
  readonly sum: string;
  readonly under: string;
  readonly words: readonly string[];
  readonly rows?: readonly Row[];
  readonly button?: { readonly words: string; readonly link: string };
  readonly last: string;
}): Written => ({
  ...letter({
    rows: [],
    ...of,
    locale: 'en',
    seller: { name: 'Dahlia', address: [], phone: '', email: '', website: '', taxNumber: '' },
    accent: '#6B2451',
    lead: '',
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
    under: `${longDate(dateInZone(ctx.now, business.zone), business.paperLocale)}, ${clockTime(ctx.now, business.zone)}`,
    words: [`Somebody signed in as you${address ? `, from the network address ${address}` : ''}.`],
    button: { words: 'Look where you are signed in', link: `${services().publicUrl}/settings/you` },
    last: 'If this was not you, choose a new password there: it ends all other sessions.',
  });
};

/** What changed of somebody's second step. */
export const stepChangedMail = async ({ message }: Subject): Promise<Written> =>
  ours({
    subject: 'Your second step when signing in',
    sum: message.details.text ?? '',
    under: '',
    words: ['This is a notice: nothing is left to be done.'],
    button: { words: 'Look at it', link: `${services().publicUrl}/settings/you` },
    last: 'If this was not you, choose a new password at once: it ends all other sessions.',
  });

/** Somebody has the password, and not the phone. */
export const codesTriedMail = async ({ message }: Subject): Promise<Written> =>
  ours({
    subject: 'Wrong codes after your password',
    sum: 'Somebody knows your password',
    under: message.details.address ? `from the network address ${message.details.address}` : '',
    words: ['Your password was right, and several wrong codes were typed after it. Nobody came in.'],
    button: { words: 'Choose a new password', link: `${services().publicUrl}/forgotten` },
    last: 'If this was you, do nothing.',
  });

/** The link by which somebody says that every second step of theirs is lost. */
export async function lostStepsLinkMail({ ctx, message }: Subject): Promise<Written | null> {
  const proof = await ctx.read((db) => proofOf(db, 'lost-steps', message.details.personId ?? ''));
  if (!proof || proof.usedAt || proof.email !== message.toAddress) return null;
  return ours({
    subject: 'Every second step is lost',
    sum: 'Take the second step off',
    under: `in ${LOST_DAYS} days, if nobody stops it`,
    words: [
      'Somebody signed in with your password and says that app, passkeys and recovery codes are lost.',
      `Follow the link if that is you. ${LOST_DAYS} days later your password alone is enough, and you set up a new one.`,
    ],
    button: {
      words: 'They are lost',
      link: `${services().publicUrl}/lost/${linkOf('lost-steps', ctx.businessId, proof)}`,
    },
    last: 'If this was not you, choose a new password at once: somebody knows it.',
  });
}

/** The wait has begun; whoever it really is can stop it. */
export const stepsLostMail = async ({ message, business }: Subject): Promise<Written> => {
  const until = new Date(message.details.until ?? 0);
  return ours({
    subject: 'Your second step ends soon',
    sum: `${longDate(dateInZone(until, business.zone), business.paperLocale)}, ${clockTime(until, business.zone)}`,
    under: 'then your password alone is enough',
    words: ['Somebody with your password and your mail says that every second step is lost.'],
    button: { words: 'Stop it', link: `${services().publicUrl}/settings/you` },
    last: 'If this was not you, sign in, stop it there, and change the passwords of Dahlia and of your mail.',
  });
};

/** The link by which somebody agrees to another address; to the one so far and to the new one. */
export async function addressLinkMail({ ctx, message }: Subject): Promise<Written | null> {
  const { personId = '', purpose } = message.details;
  if (purpose !== 'old-address' && purpose !== 'new-address') return null;
  const proof = await ctx.read((db) => proofOf(db, purpose, personId));
  const to = await ctx.read((db) => proofOf(db, 'new-address', personId));
  if (!proof || !to || proof.usedAt || !proof.nonce || proof.email !== message.toAddress) return null;
  return ours({
    subject: 'Another address to sign in with',
    // To the new one nothing is said of the one so far: it may be a stranger's.
    sum: purpose === 'old-address' ? to.email : 'Sign in with this address',
    under: `good for ${GOOD_HOURS[purpose]} hours`,
    words:
      purpose === 'old-address'
        ? ['Somebody asked to sign in with that address instead of this one. It is changed once both addresses agree.']
        : ['Somebody asked to sign in with this address from now on. It is changed once both addresses agree.'],
    button: {
      words: 'Agree to it',
      link: `${services().publicUrl}/address/${linkOf(purpose, ctx.businessId, proof)}`,
    },
    last: NOT_YOU,
  });
}

export const addressMovedMail = async ({ message }: Subject): Promise<Written> =>
  ours({
    subject: 'The address to sign in with was changed',
    sum: message.details.text ?? '',
    under: 'from now on, with the same password',
    words: ['Both addresses agreed to it.'],
    button: { words: 'Sign in', link: `${services().publicUrl}/sign-in` },
    last: 'If this was not you, write to the owner of your business at once.',
  });

/** The business was closed, or opened again. */
export const businessClosedMail = async ({ message, business }: Subject): Promise<Written> => {
  const { until } = message.details;
  const day = until && isCalendarDate(until) ? longDate(until, business.paperLocale) : '';
  return ours({
    subject: day ? 'Your business was closed' : 'Your business was opened again',
    sum: day ? 'Closed' : 'Open again',
    under: day ? `erased on ${day}` : '',
    words: [
      day
        ? 'Until then everything can be looked at and taken along, and an owner can open it again. Then nothing of it is left.'
        : 'Everything is as it was. Links, pages and buttons stay closed until somebody opens them.',
    ],
    button: { words: 'Look at it', link: `${services().publicUrl}/settings/data` },
    last: 'If you do not know why, ask the owners of your business at once.',
  });
};

/** A program has not been reached for three days. */
export const hookFailingMail = async ({ message }: Subject): Promise<Written> =>
  ours({
    subject: 'A program is not reached',
    sum: new URL(message.details.text ?? services().publicUrl).host,
    under: 'for three days',
    words: ['It was tried again and again, and nothing arrived. What it was not told can be sent once more by hand.'],
    button: { words: 'Look at it', link: `${services().publicUrl}/settings/programs` },
    last: 'What happens from now on is still tried.',
  });

const IDENTITY = {
  accepted: [
    'Payouts are open',
    'It is known who stands behind your business. What is ready goes out on the next payout date.',
  ],
  asked: ['Something has to be shown anew', 'The office that looks who stands behind your business asks for it.'],
  refused: [
    'Payouts stay closed',
    'The office that looks who stands behind your business did not accept what was shown.',
  ],
} as const;

/** What the office decided of who stands behind the business. */
export const identityMail = async ({ message, business }: Subject): Promise<Written | null> => {
  const { outcome, reason } = message.details;
  if (outcome !== 'accepted' && outcome !== 'asked' && outcome !== 'refused') return null;
  const [sum, words] = IDENTITY[outcome];
  return ours({
    subject: `${business.name}: ${sum.toLowerCase()}`,
    sum,
    under: '',
    words: reason ? [words, CHECK_REASONS[reason]] : [words],
    button: { words: 'Look at it', link: `${services().publicUrl}/settings/identity` },
    last: `Pictures are taken away for good ${KEPT_DAYS} days after it is decided.`,
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
