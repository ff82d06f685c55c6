import { type Context, Hono } from 'hono';
import type { MovableClock } from './movable-clock';

const DAY_MS = 86_400_000;

/** Reads and moves the clock: JSON for programs, a form for people. */
export function clockRoutes(clock: MovableClock): Hono {
  const app = new Hono();
  const reading = (c: Context) => c.json({ now: new Date(clock.now()).toISOString(), offsetMs: clock.offset });

  app.get('/', reading);
  app.post('/', async (c) => {
    const form = c.req.header('content-type')?.includes('json') ? undefined : await c.req.formData();
    const asked = form ? Object.fromEntries(form) : ((await c.req.json()) as Record<string, unknown>);
    const set = asked.set ? Date.parse(String(asked.set)) : undefined;
    const days = asked.advanceDays ? Number(asked.advanceDays) : undefined;
    if (asked.real) clock.advance(-clock.offset);
    else if (set !== undefined && Number.isFinite(set)) clock.set(set);
    else if (days !== undefined && Number.isFinite(days) && Math.abs(days) <= 3660) clock.advance(days * DAY_MS);
    else return c.text('Give set (an instant), advanceDays (a number) or real.', 400);
    return form ? c.redirect('/', 303) : reading(c);
  });
  return app;
}
