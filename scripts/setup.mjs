/** Makes a fresh checkout ready: packages when they are missing or older than the lock file. */
import { existsSync, statSync } from 'node:fs';
import { spawnSync } from 'node:child_process';

export function run(command, args, options = {}) {
  console.log(`\n› ${command} ${args.join(' ')}`);
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...options.env } });
  if (status !== 0 && !options.mayFail) process.exit(status ?? 1);
  return status === 0;
}

export function ensurePackages() {
  const marker = 'node_modules/.package-lock.json';
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync('package-lock.json').mtimeMs - 1000) return;
  run('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Debian's Chromium for the browser tests; installed where we may, explained where we may not. */
export function ensureChromium() {
  const wanted = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(wanted)) return;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    run('apt-get', ['update', '-q'], { mayFail: true });
    run('apt-get', ['install', '-y', '-q', 'chromium']);
    return;
  }
  console.error('Chromium is missing. Install it (Debian: sudo apt-get install chromium) or name one: CHROMIUM=/path/to/chromium npm test');
  process.exit(1);
}
