import { execFileSync } from 'node:child_process';
import { readdirSync } from 'node:fs';

/** Where this machine's PostgreSQL keeps its programs; the newest where there are several. */
export function programs(): string {
  const versions = readdirSync('/usr/lib/postgresql').sort((one, other) => Number(one) - Number(other));
  return `/usr/lib/postgresql/${versions.at(-1)}/bin`;
}

/** What the migrations lead to, as SQL: tables, indexes, constraints, functions and policies, without what differs by version. */
export function schemaOf(url: string): string {
  const dumped = execFileSync(
    `${programs()}/pg_dump`,
    ['--schema-only', '--no-owner', '--schema=public', '--no-comments', url],
    { encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  const kept = dumped
    .split('\n')
    .filter((line) => !/^(--|SET |SELECT pg_catalog\.set_config|\\|CREATE SCHEMA public)/.test(line))
    .join('\n')
    .replace(/\n{2,}/g, '\n\n')
    .trim();
  return `-- What the migrations in src/db/migrations lead to: written by \`npm run schema\`, checked by bin/test.\n\n${kept}\n`;
}
