/** Counts what is answered, for whoever watches over this: how much of each kind, how it ended, how long it took. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { collectDefaultMetrics, Histogram, type OpenMetricsContentType, Registry } from 'prom-client';

/** From the slowest screen that is still quick to what a person takes for broken, in seconds. */
const BUCKETS = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

const KINDS: readonly (readonly [kind: string, paths: RegExp])[] = [
  ['static', /^\/(_next|fonts|icon\.svg)/],
  ['programs', /^\/v1\//],
  ['files', /^\/(files|served)\//],
  ['interface', /^\/api\//],
  ['customers', /^\/[iocavmp]\/|^\/(b|kept|partner|checkout\.js)/],
];

/** What sort of address it is: never the address itself, which may be somebody's link. */
export const kindOf = (url = '/'): string => KINDS.find(([, paths]) => paths.test(url))?.[0] ?? 'desk';

/** The registry of this program's own figures, where the part that answers `/metrics` finds it: it is loaded apart from this one. */
const shared = globalThis as { dahliaMetrics?: Registry<OpenMetricsContentType> };

export class Requests {
  readonly #seconds: Histogram<'kind' | 'status'>;

  constructor(
    /** Milliseconds that only grow. */
    private readonly now: () => number,
  ) {
    const registry = new Registry<OpenMetricsContentType>();
    registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
    shared.dahliaMetrics = registry;
    collectDefaultMetrics<OpenMetricsContentType>({ register: registry });
    this.#seconds = new Histogram({
      name: 'dahlia_request_seconds',
      help: 'How long answers took, by kind of address and class of status.',
      labelNames: ['kind', 'status'],
      buckets: BUCKETS,
      registers: [registry],
    });
  }

  count(request: IncomingMessage, response: ServerResponse): void {
    const began = this.now();
    response.once('close', () => {
      const status = `${Math.floor(response.statusCode / 100)}xx`;
      this.#seconds.observe({ kind: kindOf(request.url), status }, (this.now() - began) / 1000);
    });
  }
}
