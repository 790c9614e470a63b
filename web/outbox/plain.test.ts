// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { plain } from './plain.ts';
import { saveAsFile } from './save-as-file.ts';

afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});

describe('plain', () => {
  it('takes apart what is made of values, and leaves bytes, dates and null as they are', () => {
    const [blob, date] = [new Blob(), new Date()];
    const bare = Object.assign(Object.create(null) as object, { a: [1, { b: null }] });
    expect(plain({ blob, date, list: [blob], none: null, text: 'x' })).toEqual({
      ...{ blob, date, list: [blob], none: null, text: 'x' },
    });
    expect(plain(date)).toBe(date);
    expect(plain({ blob }).blob).toBe(blob);
    const list = [1];
    expect(plain(list)).not.toBe(list);
    expect(plain(bare)).toEqual({ a: [1, { b: null }] });
    expect(plain(bare)).not.toBe(bare);
  });
});

describe('saveAsFile', () => {
  it.each([
    ['audio/webm;codecs=opus', 'take.webm'],
    ['audio/mp4', 'take.m4a'],
    ['audio/ogg', 'take.ogg'],
    ['audio/wav', 'take.wav'],
    ['application/pdf', 'take'],
  ])('names %s so that a program knows it, and lets go of it later', (type, name) => {
    vi.useFakeTimers();
    const clicked: [string, string][] = [];
    vi.spyOn(URL, 'createObjectURL').mockReturnValue('blob:x');
    const revoke = vi.spyOn(URL, 'revokeObjectURL').mockReturnValue();
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      clicked.push([this.href, this.download]);
    });
    saveAsFile(new Blob([], { type }), 'take');
    expect(clicked).toEqual([['blob:x', name]]);
    vi.advanceTimersByTime(59_000);
    expect(revoke).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1000);
    expect(revoke).toHaveBeenCalledWith('blob:x');
  });
});
