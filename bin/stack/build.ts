import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const SOURCES = ['src', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];

function filesBelow(path: string): string[] {
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesBelow(join(path, name)));
}

function sourceHash(): string {
  const hash = createHash('sha256');
  for (const file of SOURCES.flatMap(filesBelow)) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** Builds the application into `distDir`, unless that was built from just these sources; true if it had to. */
export function buildApplication(distDir: string): boolean {
  const stamp = join(distDir, 'built-from');
  const hash = sourceHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return false;
  execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
    env: { ...process.env, NODE_ENV: 'production', NEXT_DIST_DIR: distDir, NEXT_TELEMETRY_DISABLED: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
    maxBuffer: 50_000_000,
  });
  writeFileSync(stamp, hash);
  return true;
}
