import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { MailStore } from './store';

/** Pages on which the mail is read as its reader would, and the same for tests. */
export function mailRoutes(store: MailStore): Hono {
  const app = new Hono();

  app.get('/', (c) => {
    const to = c.req.query('to');
    const mails = store.list(to);
    return c.html(
      page(
        'Stand-in mailbox',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Mailbox${to ? ` of ${to}` : ''}</h1>
          <p class="soft">${mails.length} messages. Mail to everybody ends here and nowhere else.</p>
          <table>
            <tr><th>When</th><th>For</th><th>Subject</th></tr>
            ${mails.slice(0, 200).map(
              (mail) => html`<tr>
                <td>${mail.at.slice(0, 16).replace('T', ' ')}</td>
                <td><a href="/mail?to=${encodeURIComponent(mail.to[0] ?? '')}">${mail.to.join(', ')}</a></td>
                <td><a href="/mail/${mail.id}">${mail.subject}</a></td>
              </tr>`,
            )}
          </table>`,
      ),
    );
  });

  app.get('/api/ids', (c) => c.json({ ids: store.list().map(({ messageId }) => messageId) }));
  app.get('/api/messages', async (c) => {
    const found = await Promise.all(store.list(c.req.query('to')).map((mail) => store.open(mail.id)));
    return c.json({
      messages: found.flatMap((opened) =>
        opened
          ? [
              {
                ...opened.mail,
                from: opened.parsed.from?.text ?? '',
                replyTo: opened.parsed.replyTo?.text ?? '',
                text: opened.parsed.text ?? '',
                html: opened.parsed.html || '',
                attachments: opened.parsed.attachments.map(({ filename, contentType, size }) => ({
                  filename,
                  contentType,
                  size,
                })),
              },
            ]
          : [],
      ),
    });
  });

  app.get('/:id', async (c) => {
    const opened = await store.open(c.req.param('id'));
    if (!opened) return c.text('There is no such message.', 404);
    const { mail, parsed } = opened;
    return c.html(
      page(
        mail.subject,
        html`<p><a href="/mail">Mailbox</a></p>
          <h1>${mail.subject}</h1>
          <p class="soft">From ${parsed.from?.text ?? ''} to ${mail.to.join(', ')}, ${mail.at.slice(0, 16).replace('T', ' ')}</p>
          <p>
            ${parsed.attachments.map(
              (file, at) =>
                html`<a href="/mail/${mail.id}/files/${at}">${file.filename ?? 'file'}</a> (${Math.ceil(file.size / 1024)} KB) `,
            )}
          </p>
          <iframe title="HTML part" sandbox="allow-popups allow-popups-to-escape-sandbox" src="/mail/${mail.id}/html"></iframe>
          <h2>Text part</h2>
          <pre>${parsed.text ?? ''}</pre>`,
      ),
    );
  });

  app.get('/:id/html', async (c) => {
    const opened = await store.open(c.req.param('id'));
    if (!opened) return c.text('There is no such message.', 404);
    // The sender's HTML is somebody else's: no script runs in it and nothing is fetched for it.
    c.header(
      'content-security-policy',
      "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox allow-popups allow-popups-to-escape-sandbox",
    );
    return c.html((opened.parsed.html || '').replace(/<head>/i, '<head><base target="_blank">'));
  });

  app.get('/:id/files/:at', async (c) => {
    const opened = await store.open(c.req.param('id'));
    const file = opened?.parsed.attachments[Number(c.req.param('at'))];
    if (!file) return c.text('There is no such file.', 404);
    return c.body(new Uint8Array(file.content), 200, {
      'content-type': file.contentType,
      'content-disposition': `inline; filename="${(file.filename ?? 'file').replace(/[^\w. -]/g, '')}"`,
    });
  });
  return app;
}
