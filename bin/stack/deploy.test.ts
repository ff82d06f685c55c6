/** What runs Dahlia for real is well-formed, and names what is there. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DockerfileParser } from 'dockerfile-ast';
import { expect, test } from 'vitest';
import { SETTINGS } from '@/outside/settings';

const UNITS = readdirSync('deploy').filter((name) => name.endsWith('.service'));

/** The sections of a unit with their lines, by name: `systemd.syntax(7)`. */
function unitOf(name: string): Record<string, Record<string, string[]>> {
  const unit: Record<string, Record<string, string[]>> = {};
  let section = '';
  for (const line of readFileSync(join('deploy', name), 'utf8').split('\n')) {
    if (line.trim() === '' || /^[#;]/.test(line)) continue;
    const [, begins] = /^\[(Unit|Service|Install)\]$/.exec(line) ?? [];
    if (begins) {
      expect(unit[begins], `${begins} twice`).toBeUndefined();
      unit[begins] = {};
      section = begins;
      continue;
    }
    const [, key = '', value = ''] = /^([A-Z][A-Za-z]+)=(.*\S)$/.exec(line) ?? [];
    expect(key, `${name}: ${line}`).not.toBe('');
    const within = unit[section] as Record<string, string[]>;
    within[key] = [...(within[key] ?? []), value];
  }
  return unit;
}

test.each(UNITS)('%s is a unit, starts what is there, again when it ends, and as nobody who may do more', (name) => {
  const { Unit, Service, Install } = unitOf(name);
  expect(Unit?.Description).toHaveLength(1);
  expect(Install?.WantedBy).toEqual(['multi-user.target']);
  expect(Service).toMatchObject({ Restart: ['always'], NoNewPrivileges: ['yes'], ProtectSystem: ['strict'] });
  expect(Service?.User).not.toEqual(['root']);
  const [command = ''] = Service?.ExecStart ?? [];
  const [program = '', ...args] = command.split(' ');
  expect(program).toBe('/usr/bin/node');
  const files = args.filter((one) => one.startsWith('src/'));
  expect(files).toHaveLength(1);
  for (const file of files) expect(existsSync(file), file).toBe(true);
  // Where systemd is, it reads the unit itself.
  if (!existsSync('/usr/bin/systemd-analyze')) return;
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-unit-'));
  const text = readFileSync(join('deploy', name), 'utf8');
  writeFileSync(join(folder, name), text.replaceAll('/usr/bin/node', process.execPath).replace(/^User=.*\n/m, ''));
  const said = execFileSync('/usr/bin/systemd-analyze', ['verify', '--man=no', join(folder, name)], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  expect(said).toBe('');
});

test('the container file is one, takes only what is there, and runs as nobody in particular', () => {
  const file = DockerfileParser.parse(readFileSync('deploy/Containerfile', 'utf8'));
  const instructions = file.getInstructions();
  expect(instructions[0]?.getKeyword()).toBe('FROM');
  expect(file.getCMDs()).toHaveLength(1);
  const known = new Set(['FROM', 'WORKDIR', 'COPY', 'RUN', 'ENV', 'USER', 'EXPOSE', 'HEALTHCHECK', 'CMD']);
  for (const one of instructions) expect(known, one.toString()).toContain(one.getKeyword());
  for (const copy of file.getCOPYs()) {
    if (String(copy).includes('--from=')) continue;
    for (const source of copy.getArguments().slice(0, -1))
      expect(existsSync(source.getValue()), source.getValue()).toBe(true);
  }
  expect(instructions.filter((one) => one.getKeyword() === 'USER').map(String)).toEqual(['USER node']);
  expect(String(file.getCMDs()[0])).toContain('bin/serve');
  for (const run of instructions.filter((one) => one.getKeyword() === 'RUN'))
    for (const [path] of String(run).matchAll(/\bbin\/\w+/g)) expect(existsSync(path), path).toBe(true);
});

test('started without its settings, or with a database that is not there, it says a sentence for each and serves nobody', () => {
  const serve = (env: Record<string, string>): { code: number; said: string } => {
    try {
      const base = { PATH: process.env.PATH ?? '', HOME: tmpdir() };
      execFileSync(process.execPath, ['--import', 'tsx', 'bin/serve.ts'], {
        env: { ...base, ...env } as never,
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      return { code: 0, said: '' };
    } catch (error) {
      const { status, stderr } = error as { status: number; stderr: string };
      return { code: status, said: stderr };
    }
  };
  const bare = serve({});
  expect(bare.code).toBe(1);
  for (const [name, { needed }] of Object.entries(SETTINGS))
    expect(bare.said.includes(`${name} is not set.`), name).toBe(needed.length > 0);
  const values: Record<string, string> = {
    PUBLIC_URL: 'https://dahlia.example',
    SMTP_URL: 'smtp://127.0.0.1:1',
    MAIL_FROM: 'post@dahlia.example',
    DATABASE_URL: 'postgres://dahlia_app@127.0.0.1:1/none',
    JOBS_DATABASE_URL: 'postgres://dahlia_jobs@127.0.0.1:1/none',
  };
  const whole = Object.fromEntries(
    Object.entries(SETTINGS)
      .filter(([, { needed }]) => needed.length > 0)
      .map(([name]) => [
        name,
        values[name] ?? (name.endsWith('_URL') ? 'https://other.example' : 'a secret of enough signs'),
      ]),
  );
  const wrong = serve({ ...whole, PUBLIC_URL: 'http://dahlia.example', HOOKS_LOCAL: 'yes' });
  expect(wrong.code).toBe(1);
  expect(wrong.said).toContain('PUBLIC_URL has to begin with https:// outside of this computer.');
  const gone = serve(whole);
  expect(gone.code).toBe(1);
  expect(gone.said.split('\n').filter((line) => /^(JOBS_)?DATABASE_URL: .+\.$/.test(line))).toHaveLength(2);
});
