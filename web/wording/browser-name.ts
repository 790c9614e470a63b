/** Engines say more than one name; the first that is found here is the one that people know. */
const BROWSERS = [
  ['Edg/', 'Edge'],
  ['OPR/', 'Opera'],
  ['Firefox/', 'Firefox'],
  ['Chrome/', 'Chrome'],
  ['Safari/', 'Safari'],
] as const;
const SYSTEMS = [
  ['Android', 'Android'],
  ['iPhone', 'iPhone'],
  ['iPad', 'iPad'],
  ['Windows', 'Windows'],
  ['Mac OS X', 'a Mac'],
  ['CrOS', 'a Chromebook'],
  ['Linux', 'Linux'],
] as const;

/** `Firefox on Windows`, from what a browser says of itself (`User-Agent`, RFC 9110, section 10.1.5). */
export function browserName(agent: string): string {
  const found = (names: readonly (readonly [string, string])[]): string | undefined =>
    names.find(([sign]) => agent.includes(sign))?.[1];
  const [browser, system] = [found(BROWSERS), found(SYSTEMS)];
  return [browser ?? 'A browser', ...(system ? [`on ${system}`] : [])].join(' ');
}
