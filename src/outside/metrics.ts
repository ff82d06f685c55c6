/** Figures in the form of OpenMetrics, for a program that watches over this one. */
import { Gauge, type OpenMetricsContentType, Registry } from 'prom-client';

export const METRICS_TYPE = Registry.OPENMETRICS_CONTENT_TYPE;

/** A figure as of now; `by` splits it by one label. */
export type Figure = {
  readonly name: string;
  readonly help: string;
  readonly by?: string;
  readonly values: readonly { readonly of?: string; readonly value: number }[];
};

const shared = globalThis as { dahliaMetrics?: { readonly metrics: () => Promise<string> } };

/** These figures and the program's own, as a text that ends with `# EOF`. */
export async function metricsText(figures: readonly Figure[]): Promise<string> {
  const registry = new Registry<OpenMetricsContentType>();
  registry.setContentType(METRICS_TYPE);
  for (const { name, help, by, values } of figures) {
    const gauge = new Gauge({
      name,
      help,
      labelNames: by ? [by] : [],
      registers: [registry],
    });
    for (const { of, value } of values) {
      if (by) gauge.set({ [by]: of ?? '' }, value);
      else gauge.set(value);
    }
  }
  const own = (await shared.dahliaMetrics?.metrics()) ?? '';
  return own.replace(/# EOF\n$/, '\n') + (await registry.metrics());
}
