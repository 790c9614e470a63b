/** Nobody got a turn in time. */
export class TurnsTaken extends Error {}

/** Lets so much be done at once, and each person in turn: who asks for much waits for themselves, not others for them. */
export interface FairTurns {
  /**
   * Does the work when it is this person's turn.
   * @throws TurnsTaken after so many milliseconds of waiting
   */
  take<Result>(who: string, work: () => Promise<Result>): Promise<Result>;
}

/** @param each how much of that one person may have at once */
export function fairTurns({ atOnce, each, patience }: { atOnce: number; each: number; patience: number }): FairTurns {
  /** Whoever waits, in the order in which they come next. */
  const waiting = new Map<string, (() => void)[]>();
  const busy = new Map<string, number>();
  let running = 0;

  function next(): void {
    for (const [who, turns] of waiting) {
      if (running >= atOnce) return;
      if ((busy.get(who) ?? 0) >= each) continue;
      const turn = turns.shift()!;
      waiting.delete(who);
      if (turns.length > 0) waiting.set(who, turns);
      count(who, 1);
      turn();
    }
  }

  function count(who: string, change: 1 | -1): void {
    running += change;
    busy.set(who, (busy.get(who) ?? 0) + change);
    if (busy.get(who) === 0) busy.delete(who);
  }

  function comeLast(who: string): void {
    const turns = waiting.get(who);
    if (waiting.delete(who) && turns) waiting.set(who, turns);
  }

  const turnOf = (who: string): Promise<void> =>
    new Promise((resolve, reject) => {
      const turn = (): void => {
        clearTimeout(timer);
        resolve();
      };
      const timer = setTimeout(() => {
        const others = waiting.get(who)!.filter((one) => one !== turn);
        if (others.length > 0) waiting.set(who, others);
        else waiting.delete(who);
        reject(new TurnsTaken());
      }, patience);
      waiting.set(who, [...(waiting.get(who) ?? []), turn]);
      next();
    });

  return {
    async take(who, work) {
      await turnOf(who);
      try {
        return await work();
      } finally {
        count(who, -1);
        comeLast(who);
        next();
      }
    },
  };
}
