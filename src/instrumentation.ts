import type { Instrumentation } from 'next';

/** Before anybody is served: a setting that is missing is told now, not at the first payment. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { requireSettings } = await import('./outside/settings');
  requireSettings('web');
}

/** A page that fails leaves a line in the log, under the reference that the person sees. */
export const onRequestError: Instrumentation.onRequestError = async (error, _request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { errorTrace, log } = await import('./outside/log');
  const reference = error instanceof Error && 'digest' in error ? String(error.digest) : '';
  log.error({ reference, route: context.routePath, ...errorTrace(error) }, 'a page failed');
};
