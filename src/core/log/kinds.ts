/** What the log tells of, in the words that follow the name of who did it. */
export const LOG_WORDS = {
  profile: 'changed the profile of the business',
  taxes: 'changed the tax rules',
  tariff: 'changed the card fees agreed',
  charging: 'changed how plans are charged',
  partner: 'changed whom shares are paid to',
  payouts: 'changed when money is paid out',
  vouchers: 'changed how long gift vouchers are good',
  'bank-account': 'changed an account to which money is paid out',
  'signed-in': 'signed in',
  'sign-in-failed': 'a wrong password was tried',
  'signed-out': 'signed out',
  password: 'chose a new password',
  'signed-up': 'signed up',
  'address-confirmed': 'confirmed their address',
  'address-changed': 'corrected their address',
  'password-asked': 'a link for a new password was asked for',
  'sessions-ended': 'signed out everywhere else',
  invited: 'invited somebody',
  'invitation-withdrawn': 'withdrew an invitation',
  joined: 'joined',
  rights: 'changed who may what',
  left: 'ended somebody’s time here',
  'step-added': 'set up a second step for signing in',
  'step-removed': 'took a second step for signing in away',
  'step-failed': 'a wrong second step was tried',
  'steps-lost': 'says that every second step is lost',
  'steps-kept': 'kept the second step',
  'recovery-codes': 'made new recovery codes',
  'recovery-used': 'used a recovery code',
  'address-moved': 'changed the address to sign in with',
  'access-rules': 'changed how people sign in',
  identity: 'showed who stands behind the business',
  hooks: 'changed which programs are told',
  keys: 'changed by which keys programs come in',
  keeping: 'changed how long things are kept',
  exported: 'took data along',
  'customer-erased': 'erased a customer',
  closed: 'closed the business',
  reopened: 'opened the business again',
  'identity-seen': 'looked at a picture of a document',
} as const;

export type LogKind = keyof typeof LOG_WORDS;

/** Whether it was done by somebody with a name that follows, or happened to them. */
export const happensTo = (kind: LogKind): boolean =>
  kind === 'sign-in-failed' || kind === 'password-asked' || kind === 'step-failed';

/** The kinds in whose words all of these stand. @param words in small letters */
export const kindsWith = (words: string): readonly LogKind[] =>
  (Object.keys(LOG_WORDS) as LogKind[]).filter((kind) => LOG_WORDS[kind].toLowerCase().includes(words));
