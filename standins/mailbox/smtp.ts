import { SMTPServer } from 'smtp-server';
import type { DeliveryReports } from './delivery';
import type { MailStore } from './store';

/**
 * Takes mail for everybody, and refuses two kinds of address on purpose: `refused@…` for good, `later@…` for now. Mail to
 * `bounced@…` is taken and comes back later.
 */
export function mailServer(store: MailStore, reports: DeliveryReports): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    closeTimeout: 200,
    onRcptTo(address, _session, callback) {
      const refusal = address.address.startsWith('refused@')
        ? { code: 550, words: 'There is no such mailbox' }
        : address.address.startsWith('later@')
          ? { code: 451, words: 'The mailbox is busy, try later' }
          : null;
      if (!refusal) return callback();
      callback(Object.assign(new Error(refusal.words), { responseCode: refusal.code }));
    },
    onData(stream, session, callback) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        store
          .keep(
            Buffer.concat(chunks),
            session.envelope.rcptTo.map(({ address }) => address),
          )
          .then(
            (mail) => {
              callback(null, `Kept as ${mail.id}`);
              reports.tell(mail.messageId, mail.to);
            },
            (error: Error) => callback(error),
          );
      });
    },
  });
}
