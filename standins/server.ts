import { join } from 'node:path';
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { type AccountEvent, Accounts } from './bank/accounts';
import { Book, type BookEvent } from './bank/book';
import { bankRoutes } from './bank/routes';
import { type CardEvent, Processor } from './cards/processor';
import { type CardOptions, cardRoutes } from './cards/routes';
import { Terms, type TermsEvent } from './cards/terms';
import { Webhooks } from './cards/webhooks';
import { CarrierBook, type CarrierEvent } from './carrier/book';
import { carrierRoutes } from './carrier/routes';
import { type ClockEvent, MovableClock } from './clock/movable-clock';
import { clockRoutes } from './clock/routes';
import { type CheckEvent, Checks } from './identity/checks';
import { identityRoutes } from './identity/routes';
import { Journal } from './journal';
import { DeliveryReports, type ReportTarget } from './mailbox/delivery';
import { mailRoutes } from './mailbox/routes';
import { mailServer } from './mailbox/smtp';
import { MailStore } from './mailbox/store';
import { messageRoutes } from './messages/routes';
import { type HeldMessage, MessageStore } from './messages/store';
import { indexPage } from './pages/index-page';
import { Seeded } from './seeded';
import { shopRoutes } from './shop/routes';

export type StandInOptions = CardOptions & {
  readonly folder: string;
  readonly seed: string;
  readonly httpPort: number;
  readonly smtpPort: number;
  readonly messagesApiKey: string;
  readonly bankApiKey: string;
  readonly identityApiKey: string;
  readonly carrierApiKey: string;
  readonly mailReports: ReportTarget;
  readonly webhookUrl: string;
  readonly webhookSecret: string;
  readonly webhookDelayMs: number;
};

/** How long a line is kept that nobody speaks on. */
const KEEP_LINE_MS = 120_000;

/** How often the processor looks at what time has brought to disputes. */
const LOOK_MS = 1_000;

/** Starts every stand-in on loopback; resolves once both ports are open. Port 0 takes a free one. */
export async function startStandIns(
  options: StandInOptions,
): Promise<{ httpPort: number; smtpPort: number; stop: () => Promise<void> }> {
  const seeded = new Seeded(options.seed);
  const clock = new MovableClock(new Journal<ClockEvent>(join(options.folder, 'clock.ndjson')));
  const webhooks = new Webhooks({
    url: options.webhookUrl,
    secret: options.webhookSecret,
    delayMs: options.webhookDelayMs,
  });
  const processor: Processor = new Processor(
    new Journal<CardEvent>(join(options.folder, 'cards.ndjson')),
    seeded,
    clock.now,
    (sale) => webhooks.tell(processor, sale),
    options.late.knownMs,
  );
  const terms = new Terms(new Journal<TermsEvent>(join(options.folder, 'terms.ndjson')));
  const reports = new DeliveryReports(options.mailReports);
  const store = new MailStore(join(options.folder, 'mail'), clock.now);
  const messages = new MessageStore(new Journal<HeldMessage>(join(options.folder, 'messages.ndjson')), clock.now);

  const accounts = new Accounts(new Journal<AccountEvent>(join(options.folder, 'accounts.ndjson')));
  const book = new Book(new Journal<BookEvent>(join(options.folder, 'bank.ndjson')), accounts, clock.now);

  const carrier = new CarrierBook(new Journal<CarrierEvent>(join(options.folder, 'carrier.ndjson')), seeded, clock.now);
  const checks = new Checks(new Journal<CheckEvent>(join(options.folder, 'identity.ndjson')), clock.now);

  const app = new Hono();
  app.get('/', (c) => c.html(indexPage(store, messages, clock)));
  app.get('/health', (c) => c.json({ ok: true, instance: process.env.DAHLIA_INSTANCE ?? '' }));
  app.route('/cards', cardRoutes(processor, terms, seeded, clock.now, options));
  app.route('/mail', mailRoutes(store));
  app.route('/messages', messageRoutes(messages, options.messagesApiKey));
  app.route('/bank', bankRoutes(accounts, book, options.bankApiKey));
  app.route('/identity', identityRoutes(checks, options.identityApiKey));
  const { carrierApiKey: apiKey, delay, late } = options;
  app.route('/carrier', carrierRoutes(carrier, clock.now, { apiKey, delay, breaksMs: late.breaksMs }));
  app.route('/clock', clockRoutes(clock));
  app.route('/shop', shopRoutes());

  const smtp = mailServer(store, reports);
  const smtpListener = smtp.listen(options.smtpPort, '127.0.0.1');
  const [http] = await Promise.all([
    new Promise<ReturnType<typeof serve>>((resolve) => {
      const server = serve({ fetch: app.fetch, port: options.httpPort, hostname: '127.0.0.1' }, () => resolve(server));
      // A line that is kept is closed by whoever called, not in the moment in which they call again.
      if ('keepAliveTimeout' in server) server.keepAliveTimeout = KEEP_LINE_MS;
    }),
    new Promise<void>((resolve, reject) => {
      smtp.once('error', reject);
      smtpListener.once('listening', () => {
        smtp.off('error', reject);
        // A client that was killed while it spoke breaks its own connection only; unheard, it would end all stand-ins.
        smtp.on('error', () => undefined);
        resolve();
      });
    }),
  ]);
  webhooks.resume(processor);
  const looking = setInterval(() => processor.look(), LOOK_MS);
  const portOf = (address: ReturnType<typeof http.address>) =>
    typeof address === 'object' && address ? address.port : 0;
  return {
    httpPort: portOf(http.address()),
    smtpPort: portOf(smtpListener.address()),
    stop: async () => {
      webhooks.stop();
      clearInterval(looking);
      reports.stop();
      if ('closeAllConnections' in http) http.closeAllConnections();
      await Promise.all([
        new Promise<void>((resolve) => http.close(() => resolve())),
        new Promise<void>((resolve) => smtp.close(() => resolve())),
      ]);
    },
  };
}
