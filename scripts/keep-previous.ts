import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Plugin } from 'vite';

const DAY = 24 * 60 * 60 * 1000;

/**
 * Keeps the files of earlier builds for a day: whoever has the app open when it is renewed still gets its parts.
 * @param folder where the app is built into
 */
export function keepPrevious(folder: string): Plugin {
  const assets = path.join(folder, 'assets');
  const list = path.join(folder, 'previous.json');
  const made = new Set<string>();
  return {
    name: 'keep-previous',
    apply: 'build',
    writeBundle(_options, bundle) {
      for (const name of Object.keys(bundle)) made.add(path.basename(name));
    },
    closeBundle() {
      if (!existsSync(assets) || made.size === 0) return;
      const now = Date.now();
      const since = (existsSync(list) ? JSON.parse(readFileSync(list, 'utf8')) : {}) as Record<string, number>;
      const kept: Record<string, number> = {};
      for (const name of readdirSync(assets)) {
        if (made.has(name.replace(/\.(gz|br)$/u, ''))) continue;
        const left = since[name] ?? now;
        if (now - left > DAY || !statSync(path.join(assets, name)).isFile()) rmSync(path.join(assets, name));
        else kept[name] = left;
      }
      writeFileSync(list, JSON.stringify(kept));
    },
  };
}
