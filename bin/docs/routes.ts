import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { type Needs, needsOf } from '@/flows/door/operation';

const ROOT = 'src/app';

const who = ({ entry }: Needs): string =>
  entry.by === 'desk' ? entry.right : entry.by === 'link' ? `link: ${entry.link}` : entry.by;

/** The address of a file under `src/app`: folders in brackets group and are no part of it. */
export const addressOf = (file: string): string =>
  `/${file
    .replace(/(^|\/)(route\.ts|page\.tsx)$/, '')
    .split('/')
    .filter((part) => !/^\(.*\)$/.test(part))
    .join('/')}`;

/** The operations that a file takes from the flows, each with who may enter. */
async function operationsOf(source: string): Promise<string[]> {
  const found: string[] = [];
  for (const [, typed, names = '', path = ''] of source.matchAll(
    /import (type )?\{([^}]*)\} from '@\/flows\/([^']+)'/g,
  )) {
    if (typed) continue;
    const module = (await import(pathToFileURL(join('src/flows', `${path}.ts`)).href)) as Record<string, unknown>;
    for (const name of names.split(',').map((one) => one.trim().replace(/ as .*/, ''))) {
      const needs = needsOf(module[name]);
      if (needs) found.push(`${name} (${who(needs)})`);
    }
  }
  return found.sort();
}

/** The map of the addresses: what each answers to, and which operations it enters with whose right. */
export async function routesMap(): Promise<string> {
  const files = readdirSync(ROOT, { recursive: true, encoding: 'utf8' })
    .filter((file) => /(^|\/)(route\.ts|page\.tsx)$/.test(file))
    .sort((one, other) => (addressOf(one) < addressOf(other) ? -1 : 1));
  const rows: string[] = [];
  for (const file of files) {
    const source = readFileSync(join(ROOT, file), 'utf8');
    const methods = file.endsWith('page.tsx')
      ? ['page']
      : [...source.matchAll(/export (?:const|async function|function) (GET|POST|PUT|DELETE)\b/g)].map(([, one]) => one);
    const entered = await operationsOf(source);
    rows.push(`| \`${addressOf(file)}\` | ${methods.join(', ')} | ${entered.join(', ') || '–'} |`);
  }
  return [
    '# The map of the addresses',
    '',
    'Written by `npm run docs` from the routes and the declarations of the operations, checked by `bin/test`. In brackets: the right at the',
    'desk that an operation needs (`see`, `ask`, `take`, `give-back`, `records`, `settings`, `people`), the link that opens it, or `anybody`.',
    'A page that enters by its shared parts names none here.',
    '',
    '| address | answers to | enters |',
    '| --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}
