import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { stackEnvironment } from '../../bin/stack/programs';
import { DEMO_SETTINGS, SETTINGS, settingTroubles } from './settings';

const env: Readonly<Record<string, string | undefined>> = stackEnvironment({
  folder: '.',
  urls: { owner: 'postgres://o@h/d', app: 'postgres://a@h/d', jobs: 'postgres://j@h/d' },
  webPort: 1,
  standInPort: 2,
  smtpPort: 3,
  distDir: '.next',
});

test('what starts the demo starts; what is missing or wrong is said, each in a sentence', () => {
  expect(settingTroubles('web', env)).toEqual([]);
  expect(settingTroubles('worker', env)).toEqual([]);
  const without = (...names: string[]) =>
    Object.fromEntries(Object.entries(env).filter(([name]) => !names.includes(name)));
  expect(settingTroubles('web', without('JOBS_DATABASE_URL'))).toEqual([]);
  expect(settingTroubles('worker', without('JOBS_DATABASE_URL', 'BANK_URL'))).toEqual([
    'JOBS_DATABASE_URL is not set.',
    'BANK_URL is not set.',
  ]);
  const wrong = {
    SMTP_URL: 'mail.example',
    FILES_SECRET: 'short',
    PUBLIC_URL: 'http://shop.example',
    CARDS_TIMEOUT_MS: '-1',
    LOG_LEVEL: 'loud',
  };
  expect(
    settingTroubles('web', { ...env, ...wrong })
      .map((words) => words.split(' ')[0])
      .sort(),
  ).toEqual(Object.keys(wrong).sort());
  const served = settingTroubles('web', { ...env, PUBLIC_URL: 'https://pay.example', DAHLIA_DEMO: '1' });
  expect(served).toContain('DAHLIA_DEMO belongs to the demo: take it away.');
});

/** Of the framework, or set by whoever starts a program for itself. */
const OTHERS = ['NODE_ENV', 'NEXT_RUNTIME', 'NEXT_DIST_DIR', 'DAHLIA_PROGRAM', 'DAHLIA_INSTANCE'];

test('every setting that the code reads is known, and stands in the README', () => {
  const read = new Set<string>();
  for (const file of readdirSync('src', { recursive: true, encoding: 'utf8' })) {
    if (!/\.tsx?$/.test(file) || /\.test\./.test(file)) continue;
    const source = readFileSync(join('src', file), 'utf8');
    for (const [, name = ''] of source.matchAll(/(?:process\.env\.|setting\(')([A-Z][A-Z_]+)/g)) read.add(name);
  }
  const known = [...Object.keys(SETTINGS), ...DEMO_SETTINGS, ...OTHERS];
  expect([...read].filter((name) => !known.includes(name))).toEqual([]);
  const readme = readFileSync('README.md', 'utf8');
  expect([...Object.keys(SETTINGS), ...DEMO_SETTINGS].filter((name) => !readme.includes(`\`${name}\``))).toEqual([]);
});
