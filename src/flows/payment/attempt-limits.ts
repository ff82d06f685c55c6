import type { Limit } from '@/db/limits';

const SETTINGS = {
  'card-address': 'CARD_ATTEMPTS_PER_ADDRESS',
  'card-invoice': 'CARD_ATTEMPTS_PER_INVOICE',
  'card-offer': 'CARD_ATTEMPTS_PER_OFFER',
  'refused-address': 'CARD_REFUSALS_PER_ADDRESS',
  'refused-card': 'CARD_REFUSALS_PER_CARD',
  'voucher-address': 'VOUCHER_CODES_PER_ADDRESS',
} as const;

/** A limit of attempts in an hour; the environment may set another. */
export const perHour = (name: keyof typeof SETTINGS, fallback: number): Limit => ({
  name,
  attempts: Number(process.env[SETTINGS[name]] ?? fallback),
  seconds: 3600,
});
