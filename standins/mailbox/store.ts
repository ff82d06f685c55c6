import { mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type ParsedMail, simpleParser } from 'mailparser';

/** A message as it lies in the mailbox. */
export type StoredMail = {
  readonly id: string;
  readonly to: readonly string[];
  readonly subject: string;
  readonly messageId: string;
  readonly at: string;
};

/** Mail on the disk, one file a message, kept before the sender is told that it was taken. */
export class MailStore {
  private readonly mails: StoredMail[] = [];
  private count = 0;

  constructor(
    private readonly folder: string,
    private readonly now: () => number,
  ) {
    mkdirSync(folder, { recursive: true });
    for (const name of readdirSync(folder).sort()) {
      if (!name.endsWith('.json')) continue;
      this.mails.push(JSON.parse(readFileSync(join(folder, name), 'utf8')) as StoredMail);
      this.count = Math.max(this.count, Number.parseInt(name, 10));
    }
  }

  /** @param recipients the envelope's addresses: what the headers say does not count */
  async keep(raw: Buffer, recipients: readonly string[]): Promise<StoredMail> {
    const parsed = await simpleParser(raw);
    this.count += 1;
    const id = String(this.count).padStart(6, '0');
    const mail: StoredMail = {
      id,
      to: recipients,
      subject: parsed.subject ?? '',
      messageId: parsed.messageId ?? '',
      at: new Date(this.now()).toISOString(),
    };
    writeFileSync(join(this.folder, `${id}.eml`), raw);
    writeFileSync(join(this.folder, `${id}.json.part`), JSON.stringify(mail));
    renameSync(join(this.folder, `${id}.json.part`), join(this.folder, `${id}.json`));
    this.mails.push(mail);
    return mail;
  }

  /** Latest first; only those to an address, if one is given. */
  list(to?: string): StoredMail[] {
    return this.mails.filter((mail) => !to || mail.to.includes(to)).reverse();
  }

  /** The message with its parts; null if there is none. */
  async open(id: string): Promise<{ mail: StoredMail; parsed: ParsedMail } | null> {
    const mail = this.mails.find((known) => known.id === id);
    if (!mail) return null;
    return { mail, parsed: await simpleParser(readFileSync(join(this.folder, `${id}.eml`))) };
  }
}
