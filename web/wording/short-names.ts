/** How much of a name is shown: the first word of it, then as many letters of the last as it takes to tell two people apart. */
function shortened(name: string, letters: number): string {
  const words = name.trim().split(/\s+/);
  const [first] = words;
  const last = words.length > 1 ? [...words.at(-1)!] : [];
  if (letters === 0 || last.length === 0) return first!;
  return letters >= last.length ? `${first} ${last.join('')}` : `${first} ${last.slice(0, letters).join('')}.`;
}

/** A full stop alone tells nobody apart. */
const bare = (short: string): string => short.replace(/\.$/, '');

/** Names as short as they can be while no two are alike; two people of the very same name stay so. */
export function shortNames(names: readonly string[]): string[] {
  const longest = Math.max(0, ...names.map((name) => name.length));
  return names.map((name) => {
    for (let letters = 0; letters <= longest; letters++) {
      const short = shortened(name, letters);
      const alike = names.some((other) => other !== name && bare(shortened(other, letters)) === bare(short));
      if (!alike) return short;
    }
    return name;
  });
}
