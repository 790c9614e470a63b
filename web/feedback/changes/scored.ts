export function scored<T>(scores: Record<string, T>, id: string, score: T | null): Record<string, T> {
  const { [id]: _before, ...others } = scores;
  return score === null ? others : { ...others, [id]: score };
}
