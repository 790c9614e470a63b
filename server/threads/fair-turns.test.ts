import { describe, expect, it } from 'vitest';
import { fairTurns, TurnsTaken } from './fair-turns.ts';

/** Work that ends when it is told to, and a record of what began in which order. */
function workshop(turns: ReturnType<typeof fairTurns>) {
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const ask = (who: string, name: string): Promise<string> =>
    turns.take(who, () => {
      begun.push(name);
      return new Promise((resolve) => ends.set(name, () => resolve(name)));
    });
  const end = async (name: string): Promise<void> => {
    ends.get(name)!();
    await new Promise(setImmediate);
  };
  return { begun, ask, end };
}

describe('fair turns', () => {
  it('go round between those who wait, however much one of them asks for', async () => {
    const { begun, ask, end } = workshop(fairTurns({ atOnce: 1, each: 1, patience: 10_000 }));
    const all = ['a1', 'a2', 'a3', 'b1', 'b2', 'c1'].map((name) => ask(name[0]!, name));
    for (const expected of ['a1', 'b1', 'c1', 'a2', 'b2', 'a3']) {
      await new Promise(setImmediate);
      expect(begun.at(-1)).toBe(expected);
      await end(expected);
    }
    expect(await Promise.all(all)).toEqual(['a1', 'a2', 'a3', 'b1', 'b2', 'c1']);
  });

  it('leave room for others while one person has as much as they may', async () => {
    const { begun, ask, end } = workshop(fairTurns({ atOnce: 2, each: 1, patience: 10_000 }));
    void ask('a', 'a1');
    void ask('a', 'a2');
    await new Promise(setImmediate);
    expect(begun).toEqual(['a1']);
    void ask('b', 'b1');
    await new Promise(setImmediate);
    expect(begun).toEqual(['a1', 'b1']);
    await end('b1');
    expect(begun).toEqual(['a1', 'b1']);
    await end('a1');
    expect(begun).toEqual(['a1', 'b1', 'a2']);
  });

  it('are given up after a while, and go on after work that fails', async () => {
    const turns = fairTurns({ atOnce: 1, each: 1, patience: 20 });
    const { ask, end } = workshop(turns);
    const first = ask('a', 'a1');
    await expect(ask('b', 'b1')).rejects.toThrow(TurnsTaken);
    await end('a1');
    await first;
    await expect(turns.take('a', () => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    expect(await turns.take('a', () => Promise.resolve('well'))).toBe('well');
  });
});
