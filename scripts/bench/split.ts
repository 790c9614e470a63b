import { inventedTake, MANNERS, repeatable, splitTake, type InventedTake, type TalkTake } from '#core/talk';
import { round } from './figure.ts';

const TAKES = 40;
/** Takes for the bench are others than those of the tests. */
const SEED = 2026;

const KNOWN: Record<string, (take: InventedTake) => TalkTake> = {
  everything: (take) => take,
  withoutKeys: ({ keys: _keys, ...take }) => take,
  pausesAlone: ({ keys: _keys, words: _words, ...take }) => take,
};

/** How many cuts of invented takes are at the right pause. */
export function benchSplit(): object {
  const of = (manner: keyof typeof MANNERS, known: (take: InventedTake) => TalkTake): object => {
    const random = repeatable(SEED);
    const takes = Array.from({ length: TAKES }, () => inventedTake(random, MANNERS[manner]));
    const right = takes.flatMap((take) =>
      splitTake(known(take)).map(({ at }, index) => {
        const { start, end } = take.changes[index]!;
        return at >= start && at <= end;
      }),
    );
    return {
      unit: '% of cuts at the right pause',
      right: round((100 * right.filter(Boolean).length) / right.length),
      cuts: right.length,
      wanted: '95 or more',
    };
  };
  return Object.fromEntries(
    (Object.keys(MANNERS) as (keyof typeof MANNERS)[]).map((manner) => [
      manner,
      Object.fromEntries(Object.entries(KNOWN).map(([name, known]) => [name, of(manner, known)])),
    ]),
  );
}
