// The registry reached here lacks some non-Linux builds of native packages (404). `npm install` skips them and
// leaves them out of package-lock.json; `npm ci` then refuses the lock. Add an entry for each, with os/cpu from the
// name, so that npm ci sees a complete lock and never fetches them on Linux. Run after every change of dependencies.
import { readFileSync, writeFileSync } from 'node:fs';

const file = process.argv[2] ?? 'package-lock.json';
const lock = JSON.parse(readFileSync(file, 'utf8')),
  pk = lock.packages;
let added = 0;
const OS = ['android', 'darwin', 'freebsd', 'openharmony', 'netbsd', 'openbsd', 'sunos', 'aix', 'win32', 'linux'];
const CPU = ['arm64', 'x64', 'ia32', 'arm', 'ppc64', 's390x', 'riscv64', 'loong64', 'mips64el', 'wasm32'];
for (const [where, p] of Object.entries(pk))
  for (const [name, range] of Object.entries(p.optionalDependencies ?? {})) {
    let dir = where,
      found = false; // node's lookup: nearest node_modules upwards
    for (;;) {
      if (pk[`${dir ? `${dir}/` : ''}node_modules/${name}`]) {
        found = true;
        break;
      }
      if (!dir) break;
      const i = dir.lastIndexOf('node_modules/');
      dir = i <= 0 ? '' : dir.slice(0, i - 1);
    }
    if (found) continue;
    const words = name.split(/[/-]/);
    const os = OS.filter((o) => words.includes(o));
    let cpu = CPU.filter((c) =>
      words.some((w) => w === c || (c === 'arm' && /^arm(v\d.*)?$/.test(w)) || (c === 'ppc64' && w === 'ppc64le')),
    );
    if (words.includes('wasm32')) cpu = ['wasm32'];
    if (!/^\d+\.\d+\.\d+/.test(range) || (!os.length && !cpu.length)) {
      console.error(`cannot complete: ${name}@${range} (of ${where})`);
      process.exitCode = 1;
      continue;
    }
    const e = {
      version: range,
      ...(cpu.length ? { cpu } : {}),
      ...(p.dev ? { dev: true } : {}),
      optional: true,
      ...(os.length ? { os } : {}),
    };
    pk[`node_modules/${name}`] = e;
    added++;
  }
lock.packages = Object.fromEntries(Object.entries(pk).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)));
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`);
console.log('entries added:', added);
