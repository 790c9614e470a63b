// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { letGoOfBytes, localBlob, localUrl, playsFrom, rememberBytes } from './local-media.ts';

const MEGABYTE = 1024 * 1024;
const open = new Set<string>();
let made = 0;
vi.spyOn(URL, 'createObjectURL').mockImplementation(() => {
  const url = `blob:${made++}`;
  open.add(url);
  return url;
});
vi.spyOn(URL, 'revokeObjectURL').mockImplementation((url) => void open.delete(url));

/** Bytes that weigh something without being there. */
const blob = (size: number): Blob => Object.defineProperty(new Blob(), 'size', { value: size });
const keep = (sha256: string, size = MEGABYTE): void => rememberBytes({ sha256, blob: blob(size) });

let run = 0;
const name = (index: number): string => `${run}-${index}`;
beforeEach(() => {
  run++;
  playsFrom(() => '');
});

describe('bytes that were made in this page', () => {
  it('have one address, however often they are remembered, until they are let go', () => {
    keep(name(0));
    keep(name(0));
    expect(localUrl(name(0))).toMatch(/^blob:/);
    expect(localBlob(name(0))?.size).toBe(MEGABYTE);
    expect(localUrl('never made')).toBeUndefined();
    letGoOfBytes('never made');
  });

  it('stay while the server does not have them, however many they are', () => {
    for (let index = 0; index < 40; index++) keep(name(index));
    for (let index = 0; index < 40; index++) expect(localUrl(name(index))).toBeDefined();
    for (let index = 0; index < 40; index++) letGoOfBytes(name(index));
  });

  it('go when the server has them, the oldest first, and their addresses are given back', () => {
    const before = open.size;
    for (let index = 0; index < 300; index++) {
      keep(name(index));
      letGoOfBytes(name(index));
    }
    expect(localUrl(name(0))).toBeUndefined();
    expect(localUrl(name(299))).toBeDefined();
    expect(open.size - before).toBeLessThanOrEqual(12);
  });

  it('never go while they are played', () => {
    keep(name(0));
    const url = localUrl(name(0))!;
    playsFrom(() => url);
    for (let index = 0; index < 40; index++) {
      letGoOfBytes(name(index));
      keep(name(index + 1));
    }
    expect(localUrl(name(0))).toBe(url);
  });
});
