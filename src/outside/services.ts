import { type Bank, httpBank } from './bank';
import { type CardProcessor, cardProcessor } from './cards';
import { type Carrier, httpCarrier } from './carrier';
import { type Clock, movableClock, realClock } from './clock';
import { httpIdentity, type IdentityOffice } from './identity';
import { type Post, smtpPost } from './mail';
import { httpMessenger, type Messenger } from './messages';

/** Everything outside, as this process was told to use it. */
export type Services = {
  readonly cards: CardProcessor;
  readonly post: Post;
  readonly clock: Clock;
  /** The origin under which customers and people reach this application. */
  readonly publicUrl: string;
  /** The address from which mail is sent; the business's own is where answers go. */
  readonly mailFrom: string;
  readonly webhookSecret: string;
  readonly messenger: Messenger;
  readonly bank: Bank;
  readonly identity: IdentityOffice;
  readonly carrier: Carrier;
  /** Signs what the mail server reports later. */
  readonly mailSecret: string;
  /** Signs the addresses under which files are fetched. */
  readonly filesSecret: string;
  /** Encrypts what must not be read in the database. */
  readonly sealingSecret: string;
  /** A website on which buttons can be tried; empty where there is none. */
  readonly sampleSite: string;
};

function setting(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set`);
  return value;
}

const kept = globalThis as { dahliaServices?: Services };

/** The one place where configuration picks an implementation; made at first use. @throws Error where a setting is missing */
export function services(): Services {
  kept.dahliaServices ??= {
    cards: cardProcessor({
      url: setting('CARDS_URL'),
      apiKey: setting('CARDS_API_KEY'),
      timeoutMs: Number(process.env.CARDS_TIMEOUT_MS ?? 6000),
    }),
    post: smtpPost(setting('SMTP_URL')),
    clock: process.env.CLOCK_URL
      ? movableClock(process.env.CLOCK_URL, Number(process.env.CLOCK_FRESH_MS ?? 250))
      : realClock,
    publicUrl: setting('PUBLIC_URL').replace(/\/$/, ''),
    mailFrom: setting('MAIL_FROM'),
    webhookSecret: setting('CARDS_WEBHOOK_SECRET'),
    messenger: httpMessenger(setting('MESSAGES_URL'), setting('MESSAGES_API_KEY')),
    bank: httpBank(setting('BANK_URL'), setting('BANK_API_KEY')),
    identity: httpIdentity(setting('IDENTITY_URL'), setting('IDENTITY_API_KEY')),
    carrier: httpCarrier(setting('CARRIER_URL'), setting('CARRIER_API_KEY')),
    mailSecret: setting('MAIL_WEBHOOK_SECRET'),
    filesSecret: setting('FILES_SECRET'),
    sealingSecret: setting('SEALING_SECRET'),
    sampleSite: process.env.SAMPLE_SITE_URL ?? '',
  };
  return kept.dahliaServices;
}
