import { Context } from './context';

/**
 * A context for programs that run beside the application: the demo's data, measurements, tests. Neither handlers nor jobs may
 * import this, which the check of the arrows holds.
 *
 * @param now the moment at which it all takes place, on the business's clock
 */
export const programContext = (businessId: string, now: Date = new Date()): Context =>
  new Context(businessId, { name: 'Dahlia', personId: '' }, now, true);
