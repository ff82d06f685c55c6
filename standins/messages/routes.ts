import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { MessageStore } from './store';

const NUMBER = /^[+()\d .-]{5,30}$/;

/** Takes short messages by key, and shows them as their reader would see them. Numbers ending in 0000 are refused. */
export function messageRoutes(store: MessageStore, apiKey: string): Hono {
  const app = new Hono();

  app.post('/outgoing', async (c) => {
    if (c.req.header('authorization') !== `Bearer ${apiKey}`) return c.json({ words: 'unknown sender' }, 401);
    const key = c.req.header('idempotency-key') ?? '';
    const { way, to, text } = (await c.req.json().catch(() => ({}))) as Record<string, unknown>;
    const good = (way === 'text' || way === 'chat') && typeof to === 'string' && typeof text === 'string' && key !== '';
    if (!good || !NUMBER.test(to)) return c.json({ words: 'This is no number that can be reached' }, 422);
    if (to.replace(/\D/g, '').endsWith('0000')) return c.json({ words: 'This number takes no messages' }, 422);
    return c.json(store.take({ key, way, to, text }));
  });

  app.get('/api/messages', (c) => c.json({ messages: store.list(c.req.query('to')) }));

  app.get('/', (c) => {
    const messages = store.list(c.req.query('to'));
    return c.html(
      page(
        'Stand-in messages',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Messages</h1>
          <p class="soft">${messages.length} short messages. They end here and nowhere else.</p>
          <table>
            <tr><th>When</th><th>For</th><th>How</th><th>What</th></tr>
            ${messages.slice(0, 200).map(
              (message) => html`<tr>
                <td>${message.at.slice(0, 16).replace('T', ' ')}</td>
                <td>${message.to}</td>
                <td>${message.way}</td>
                <td>${message.text}</td>
              </tr>`,
            )}
          </table>`,
      ),
    );
  });
  return app;
}
