import { Hono } from 'hono';
import { html } from 'hono/html';
import type { Journal } from '../journal';
import { page } from '../pages/layout';

/** What the processor agrees with one business: percent of each day's net that it holds back for so many days; 0 for nothing. */
export type TermsEvent = { readonly business: string; readonly percent: string; readonly days: number };

/** A day's net can be paid out from the first banking day after it. */
const LAG = 1;

/** What is agreed with whom. */
export class Terms {
  private readonly kept = new Map<string, TermsEvent>();

  constructor(private readonly journal: Journal<TermsEvent>) {
    for (const event of journal.past) this.kept.set(event.business, event);
  }

  of(business: string): { lag: number; reserve: { percent: string; days: number } | null } {
    const { percent, days } = this.kept.get(business) ?? { percent: '0', days: 0 };
    return { lag: LAG, reserve: Number(percent) > 0 && days > 0 ? { percent, days } : null };
  }

  keep(event: TermsEvent): void {
    this.journal.append(event);
    this.kept.set(event.business, event);
  }

  list(): TermsEvent[] {
    return [...this.kept.values()];
  }
}

/** A page on which the processor's agreements are changed. */
export function termsRoutes(terms: Terms): Hono {
  const app = new Hono();
  app.post('/', async (c) => {
    const form = await c.req.formData();
    const [business, percent, days] = ['business', 'percent', 'days'].map((name) =>
      String(form.get(name) ?? '').trim(),
    );
    if (
      !business ||
      !/^\d{1,2}(\.\d{1,4})?$/.test(percent ?? '') ||
      !/^\d{1,3}$/.test(days ?? '') ||
      Number(days) > 365
    )
      return c.text('Give a business, a percentage below 100, and days up to 365.', 400);
    terms.keep({ business, percent: percent ?? '0', days: Number(days) });
    return c.redirect('/cards/terms', 303);
  });
  app.get('/', (c) =>
    c.html(
      page(
        'Stand-in processor: agreements',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>What is held back</h1>
          <p class="soft">A part of each day’s net that the processor keeps for a while, business by business.</p>
          ${terms.list().map(({ business, percent, days }) => html`<p>${business}: ${percent} % for ${days} days</p>`)}
          <form method="post" action="/cards/terms">
            <input name="business" required size="40" placeholder="The business’s key" aria-label="The business’s key" />
            <input name="percent" required size="5" placeholder="Percent" aria-label="Percent" />
            <input name="days" required size="4" placeholder="Days" aria-label="Days" /><button>Agree</button>
          </form>`,
      ),
    ),
  );
  return app;
}
