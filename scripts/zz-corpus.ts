import { readdirSync, readFileSync, existsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
process.chdir('/work/corpus');
const [, , label, ...formats] = process.argv;
const words = (text: string): string[] => text.normalize('NFKC').toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
function share(found: string[], wanted: string[]): number {
  const count = new Map<string, number>();
  for (const w of found) count.set(w, (count.get(w) ?? 0) + 1);
  let hit = 0;
  for (const w of wanted) { const n = count.get(w) ?? 0; if (n > 0) { hit++; count.set(w, n - 1); } }
  return wanted.length === 0 ? 1 : hit / wanted.length;
}
function order(found: string[], wanted: string[]): number {
  const once = (l: string[]) => { const m = new Map<string, number>(); const d = new Set<string>(); l.forEach((w, i) => m.has(w) ? d.add(w) : m.set(w, i)); d.forEach((w) => m.delete(w)); return m; };
  const a = once(found), b = once(wanted);
  const seq = [...b].filter(([w]) => a.has(w)).sort((x, y) => x[1] - y[1]).map(([w]) => a.get(w)!);
  if (seq.length < 5) return 1;
  const tails: number[] = [];
  for (const x of seq) { let lo = 0, hi = tails.length; while (lo < hi) { const m = (lo + hi) >> 1; if (tails[m]! < x) lo = m + 1; else hi = m; } tails[lo] = x; }
  return tails.length / seq.length;
}
const { leafText } = await import(process.env.TREE + '/core/folio/index.ts');
const { readDocument } = await import(process.env.TREE + '/server/documents/read.ts');
const out: Record<string, unknown>[] = [];
for (const format of formats) {
  const shares: number[] = [], orders: number[] = []; let refused = 0, n = 0; const reasons: Record<string, number> = {};
  for (const file of readdirSync(`files/${format}`).sort()) {
    const bytes = readFileSync(`files/${format}/${file}`);
    const base = path.parse(file).name;
    const refPath = ['txt', 'pdf.txt'].map((e) => `ref/${format}/${base}.${e}`).find(existsSync);
    const csvs = format === 'xlsx' && existsSync('ref/xlsx') ? readdirSync('ref/xlsx').filter((f) => f.startsWith(base + '-') && f.endsWith('.csv') || f === base + '.csv').map((f) => readFileSync('ref/xlsx/' + f, 'utf8')).join('\n') : undefined;
    const ref = refPath ? readFileSync(refPath, 'utf8') : csvs;
    n++;
    let row: Record<string, unknown> = { format, file };
    try {
      const t = Date.now();
      const { file: read } = await Promise.race([readDocument(bytes, file), new Promise<never>((_, r) => setTimeout(() => r(new Error('slow')), 25000))]);
      const text = read.leaves.map(leafText).join('');
      const w = words(text);
      if (ref !== undefined) {
        const wanted = words(ref);
        row = { ...row, share: share(w, wanted), order: order(w, wanted), words: w.length, wanted: wanted.length, ms: Date.now() - t };
        shares.push(row.share as number); orders.push(row.order as number);
      } else row = { ...row, words: w.length, noref: true };
    } catch (error) {
      refused++;
      row = { ...row, refused: (error as Error).message };
      const key = (error as Error).message.slice(0, 70);
      reasons[key] = (reasons[key] ?? 0) + 1;
      if (ref !== undefined) row.wanted = words(ref).length;
    }
    out.push(row);
  }
  const q = (l: number[], p: number) => { const s = [...l].sort((a, b) => a - b); return s.length ? s[Math.floor((s.length - 1) * p)]!.toFixed(3) : '-'; };
  console.log(format, 'files', n, 'refused', refused, 'compared', shares.length, 'share median', q(shares, 0.5), 'p10', q(shares, 0.1), 'p25', q(shares, 0.25), 'mean', (shares.reduce((a, b) => a + b, 0) / shares.length).toFixed(3), 'order p10', q(orders, 0.1), 'mean', (orders.reduce((a, b) => a + b, 0) / orders.length).toFixed(3));
  for (const [k, v] of Object.entries(reasons)) console.log('    ', v, k);
}
writeFileSync(`out-${label}.json`, JSON.stringify(out, null, 0));
process.exit(0);
