import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, expect, it, vi } from 'vitest';
import { keepPrevious } from './keep-previous.ts';

const folder = mkdtempSync(path.join(tmpdir(), 'vivid-build-'));
const assets = path.join(folder, 'assets');
afterEach(() => {
  vi.useRealTimers();
  rmSync(folder, { recursive: true });
});

/** As Vite calls it. */
function build(...names: string[]): string[] {
  mkdirSync(assets, { recursive: true });
  for (const name of names) writeFileSync(path.join(assets, name), name);
  const { writeBundle, closeBundle } = keepPrevious(folder) as unknown as Record<string, (...args: unknown[]) => void>;
  writeBundle!({}, Object.fromEntries(names.map((name) => [`assets/${name}`, {}])));
  for (const name of names) writeFileSync(path.join(assets, `${name}.gz`), name);
  closeBundle!();
  return readdirSync(assets).filter((name) => !name.endsWith('.gz'));
}

it('keeps what an earlier build made for a day after it was replaced, packed files too', () => {
  vi.useFakeTimers({ now: new Date('2026-12-01T08:00:00Z') });
  expect(build('desk-1.js', 'vue-1.js')).toEqual(['desk-1.js', 'vue-1.js']);
  vi.setSystemTime(new Date('2026-12-03T08:00:00Z'));
  expect(build('desk-2.js', 'vue-1.js')).toEqual(['desk-1.js', 'desk-2.js', 'vue-1.js']);
  vi.setSystemTime(new Date('2026-12-04T07:59:00Z'));
  expect(build('desk-3.js', 'vue-1.js')).toContain('desk-1.js');
  vi.setSystemTime(new Date('2026-12-04T08:01:00Z'));
  expect(build('desk-3.js', 'vue-1.js')).toEqual(['desk-2.js', 'desk-3.js', 'vue-1.js']);
  expect(readdirSync(assets)).not.toContain('desk-1.js.gz');
  expect(Object.keys(JSON.parse(readFileSync(path.join(folder, 'previous.json'), 'utf8')) as object)).toEqual([
    'desk-2.js',
    'desk-2.js.gz',
  ]);
});
