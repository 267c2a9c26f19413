/** Adds optional packages of other platforms to the lock file where the package source left them out: `npm ci` insists on them. Run after `npm install`. */
import { readFileSync, writeFileSync } from 'node:fs';

const OS = ['darwin', 'linux', 'win32', 'android', 'freebsd', 'openbsd', 'netbsd', 'sunos', 'aix', 'openharmony'];
const CPU = ['arm64', 'arm', 'x64', 'ia32', 'ppc64', 's390x', 'riscv64', 'loong64', 'mips64el', 'wasm32'];
const lock = JSON.parse(readFileSync('package-lock.json', 'utf8'));
for (const [path, entry] of Object.entries({ ...lock.packages })) {
  for (const [name, want] of Object.entries(entry.optionalDependencies ?? {})) {
    if (lock.packages[`${path}/node_modules/${name}`] || lock.packages[`node_modules/${name}`]) continue;
    const words = name.split(/[/-]/);
    const os = words.filter((w) => OS.includes(w));
    const cpu = words.filter((w) => CPU.includes(w));
    lock.packages[`node_modules/${name}`] = {
      version: want.replace(/^[\^~]/, ''),
      ...(entry.dev ? { dev: true } : {}),
      optional: true,
      ...(cpu.length ? { cpu } : {}),
      ...(os.length ? { os } : {}),
    };
  }
}
const { '': root, ...rest } = lock.packages;
lock.packages = { '': root, ...Object.fromEntries(Object.entries(rest).sort(([a], [b]) => a.localeCompare(b, 'en'))) };
writeFileSync('package-lock.json', `${JSON.stringify(lock, null, 2)}\n`);
