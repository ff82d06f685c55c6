/** The stand-ins as a program of their own: everything comes from the environment. */
import { startStandIns } from './server';

const setting = (name: string, otherwise?: string): string => {
  const value = process.env[name] ?? otherwise;
  if (value === undefined) throw new Error(`${name} is not set`);
  return value;
};
const [least = 0, most = least] = setting('STANDINS_DELAY_MS', '120-420').split('-').map(Number);

await startStandIns({
  folder: setting('STANDINS_DIR'),
  seed: setting('STANDINS_SEED', 'dahlia'),
  httpPort: Number(setting('STANDINS_PORT')),
  smtpPort: Number(setting('STANDINS_SMTP_PORT')),
  apiKey: setting('CARDS_API_KEY'),
  appOrigins: setting('STANDINS_APP_ORIGINS').split(' '),
  delay: [least, most],
  late: { breaksMs: Number(setting('STANDINS_LATE_BREAKS_MS', '25000')), knownMs: 3000 },
  messagesApiKey: setting('MESSAGES_API_KEY'),
  bankApiKey: setting('BANK_API_KEY'),
  identityApiKey: setting('IDENTITY_API_KEY'),
  carrierApiKey: setting('CARRIER_API_KEY'),
  mailReports: {
    url: setting('STANDINS_MAIL_REPORT_URL', ''),
    secret: setting('MAIL_WEBHOOK_SECRET'),
    delayMs: Number(setting('STANDINS_MAIL_REPORT_DELAY_MS', '1500')),
  },
  webhookUrl: setting('STANDINS_WEBHOOK_URL'),
  webhookSecret: setting('CARDS_WEBHOOK_SECRET'),
  webhookDelayMs: Number(setting('STANDINS_WEBHOOK_DELAY_MS', '800')),
});
process.stdout.write('stand-ins ready\n');
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
