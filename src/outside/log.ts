import pino from 'pino';

/** Structured lines without personal data: ids, codes and places in the code only. */
export const log = pino({
  level: process.env.LOG_LEVEL ?? 'info',
  base: { program: process.env.DAHLIA_PROGRAM ?? 'web' },
});

/** What may be written down of an error: its kind, code and place, never its message, which can hold what somebody typed. */
export function errorTrace(error: unknown): { error: string; code?: string; at?: string | undefined } {
  if (!(error instanceof Error)) return { error: typeof error };
  const code = 'code' in error ? { code: String(error.code) } : {};
  const constraint = 'constraint' in error && error.constraint ? { constraint: String(error.constraint) } : {};
  const at = error.stack
    ?.split('\n')
    .filter((line) => line.trim().startsWith('at '))
    .slice(0, 6)
    .map((line) => line.trim().replace(`${process.cwd()}/`, ''))
    .join(' < ');
  return { error: error.name, ...code, ...constraint, at };
}
