import { MESSAGE_KINDS } from '@/core/message/kinds';
import { updateMessage } from '@/db/messages';
import { addToTimeline } from '@/db/timeline';
import { type Writing, worker } from '@/flows/door/operation';
import { subjectOfMessage } from '@/flows/message/subject';
import { MailRefused } from '@/outside/mail';
import { MessageRefused } from '@/outside/messages';
import { services } from '@/outside/services';
import { type Subject, subjectOf } from './subject';
import { WRITERS } from './writers';

/**
 * Hands one queued message over and notes it. Killed between the two it is handed over once more, with the same Message-ID
 * or key; a refusal for good is noted and not tried again, any other trouble is thrown for the job to be retried.
 */
export const handOverMessage = worker().run(async (ctx, messageId: string): Promise<void> => {
  const subject = await subjectOf(ctx, messageId);
  if (!subject) return;
  const result = await handOver(subject);
  const later = await ctx.later();
  await later.write((tx) => note(tx, subject, result));
});

type Result =
  | { readonly state: 'handed-over' | 'dropped'; readonly trouble: null }
  | { readonly state: 'failed'; readonly trouble: string };

async function handOver(subject: Subject): Promise<Result> {
  try {
    const isSent = await (subject.message.way === 'mail' ? postMail(subject) : postShort(subject));
    return { state: isSent ? 'handed-over' : 'dropped', trouble: null };
  } catch (error) {
    if (error instanceof MailRefused || error instanceof MessageRefused)
      return { state: 'failed', trouble: error.message };
    throw error;
  }
}

/** Whether there was anything to send. */
async function postMail(subject: Subject): Promise<boolean> {
  const { post, mailFrom, publicUrl } = services();
  const { message, business } = subject;
  const written = await WRITERS[message.kind].mail(subject);
  if (!written) return false;
  const { subject: about, text, html, files } = written;
  const { reader } = MESSAGE_KINDS[message.kind];
  const inward = reader === 'business' || reader === 'person';
  await post.handOver({
    messageId: `<${message.id}.${business.id}@${new URL(publicUrl).hostname}>`,
    from: { name: reader === 'person' || reader === 'invited' ? 'Dahlia' : business.name, address: mailFrom },
    // Whoever answers a customer's question from the mail program reaches the customer.
    replyTo: message.kind === 'question' ? (message.details.from ?? mailFrom) : inward ? mailFrom : business.email,
    to: { name: message.toName, address: message.toAddress },
    subject: about,
    text,
    html,
    attachments: files.map(({ name, bytes, type }) => ({ filename: name, content: bytes, contentType: type })),
  });
  return true;
}

async function postShort(subject: Subject): Promise<boolean> {
  const { id, kind, way, toAddress } = subject.message;
  const { short } = WRITERS[kind];
  if (!short) throw new MessageRefused(`${MESSAGE_KINDS[kind].called} does not go as a short message`);
  const text = await short(subject);
  await services().messenger.handOver({ key: id, way: way === 'chat' ? 'chat' : 'text', to: toAddress, text });
  return true;
}

async function note(tx: Writing, { message, receipt }: Subject, result: Result): Promise<void> {
  if (!(await updateMessage(tx, message.id, result))) return;
  const about = subjectOfMessage(message);
  if (!about || result.state === 'dropped' || MESSAGE_KINDS[message.kind].told === 'nothing') return;
  const told = { what: message.kind, to: message.toAddress };
  const number = message.kind === 'receipt' ? receipt?.number : undefined;
  const event =
    result.state === 'failed'
      ? { kind: 'mail-failed' as const, ...told, trouble: result.trouble }
      : { kind: 'mail-handed-over' as const, ...told, ...(number ? { receipt: number } : {}) };
  await addToTimeline(tx, about, event, 'Dahlia');
}
