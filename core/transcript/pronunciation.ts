import { folded } from './token.ts';

type Rules = readonly (readonly [letters: string, phones: string])[];

/*
 * Letters to sounds, for words that no pronouncing dictionary has: names, above all. The longest letters that fit count. Rough
 * on purpose: aligning a known word needs its length and its consonants more than its exact vowels. From general knowledge
 * of both spellings, not from a published table.
 */

/** Phones of the CMU Pronouncing Dictionary (ARPAbet). */
const ENGLISH: Rules = [
  ['tion', 'SH AH N'], ['sion', 'ZH AH N'], ['tious', 'SH AH S'], ['ough', 'AO'], ['augh', 'AO'], ['eigh', 'EY'], ['igh', 'AY'],
  ['tch', 'CH'], ['sch', 'SH'], ['dge', 'JH'], ['chr', 'K R'], ['ck', 'K'], ['ch', 'CH'], ['sh', 'SH'], ['th', 'TH'],
  ['ph', 'F'], ['gh', 'G'], ['kn', 'N'], ['wr', 'R'], ['wh', 'W'], ['qu', 'K W'], ['ng', 'NG'], ['x', 'K S'],
  ['ee', 'IY'], ['ea', 'IY'], ['oo', 'UW'], ['ou', 'AW'], ['ow', 'OW'], ['oa', 'OW'], ['oi', 'OY'], ['oy', 'OY'],
  ['ai', 'EY'], ['ay', 'EY'], ['au', 'AO'], ['aw', 'AO'], ['ie', 'IY'], ['ei', 'EY'], ['ey', 'IY'], ['ue', 'UW'],
  ['ui', 'UW'], ['eu', 'Y UW'], ['ar', 'AA R'], ['er', 'ER'], ['ir', 'ER'], ['or', 'AO R'], ['ur', 'ER'],
  ['a', 'AA'], ['b', 'B'], ['c', 'K'], ['d', 'D'], ['e', 'EH'], ['f', 'F'], ['g', 'G'], ['h', 'HH'], ['i', 'IY'],
  ['j', 'JH'], ['k', 'K'], ['l', 'L'], ['m', 'M'], ['n', 'N'], ['o', 'OW'], ['p', 'P'], ['q', 'K'], ['r', 'R'],
  ['s', 'S'], ['t', 'T'], ['u', 'UW'], ['v', 'V'], ['w', 'W'], ['y', 'IY'], ['z', 'Z'],
]; // prettier-ignore

/** Phones of soundswallower's French model. */
const FRENCH: Rules = [
  ['tion', 'ss yy on'], ['eau', 'au'], ['oin', 'ww in'], ['ain', 'in'], ['ein', 'in'], ['ien', 'yy in'], ['eil', 'ai yy'],
  ['ail', 'aa yy'], ['ill', 'ii yy'], ['ouil', 'ou yy'], ['oeu', 'oe'], ['ch', 'ch'], ['gn', 'gn'], ['ph', 'ff'], ['qu', 'kk'],
  ['ou', 'ou'], ['oi', 'ww aa'], ['au', 'au'], ['ai', 'ai'], ['ei', 'ai'], ['eu', 'eu'], ['an', 'an'], ['am', 'an'],
  ['en', 'an'], ['em', 'an'], ['on', 'on'], ['om', 'on'], ['in', 'in'], ['im', 'in'], ['un', 'un'], ['um', 'un'],
  ['er', 'ei'], ['ez', 'ei'], ['ll', 'll'], ['mm', 'mm'], ['nn', 'nn'], ['rr', 'rr'], ['ss', 'ss'], ['tt', 'tt'], ['x', 'kk ss'],
  ['a', 'aa'], ['b', 'bb'], ['c', 'kk'], ['d', 'dd'], ['e', 'ee'], ['f', 'ff'], ['g', 'gg'], ['h', ''], ['i', 'ii'],
  ['j', 'jj'], ['k', 'kk'], ['l', 'll'], ['m', 'mm'], ['n', 'nn'], ['o', 'oo'], ['p', 'pp'], ['q', 'kk'], ['r', 'rr'],
  ['s', 'ss'], ['t', 'tt'], ['u', 'uu'], ['v', 'vv'], ['w', 'ww'], ['y', 'ii'], ['z', 'zz'],
]; // prettier-ignore

const RULES: Record<string, Rules> = { en: ENGLISH, fr: FRENCH };

/** Letters that other languages have beside those of English. */
const TRANSCRIBED: Record<string, string> = {
  ß: 'ss',
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  æ: 'ae',
  œ: 'oe',
  ı: 'i',
};

/**
 * How a word is probably said, as phones of the language's acoustic model, parted by spaces; undefined where it has no letter
 * that could be read.
 * @param language `en` or `fr`
 */
export function pronunciation(word: string, language: 'en' | 'fr'): string | undefined {
  const rules = RULES[language]!;
  const letters = [...folded(word)].map((letter) => TRANSCRIBED[letter] ?? letter).join('');
  const phones: string[] = [];
  for (let at = 0; at < letters.length;) {
    const rule = rules.find(([spelling]) => letters.startsWith(spelling, at));
    if (rule && rule[1] !== '') phones.push(rule[1]);
    // A doubled consonant is one sound.
    at += (rule?.[0].length ?? 1) + (letters[at] === letters[at + 1] && rule?.[0].length === 1 ? 1 : 0);
  }
  return phones.length > 0 ? phones.join(' ') : undefined;
}
