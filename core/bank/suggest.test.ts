import { describe, expect, it } from 'vitest';
import { DETECTORS } from './detectors.ts';
import { MOST_SUGGESTED, readPassage, suggester, type Suggestible } from './index.ts';

const remark = (id: string, more: Partial<Suggestible> = {}): Suggestible => ({
  ...{ id, language: 'en', kind: 'repair', criterion: '', name: '', description: '', tags: [], transcript: '' },
  ...more,
});
const at = (passage: string, before = 'We went on. ', after = ' Then it rained.') => ({ before, passage, after });

describe('suggester', () => {
  const bank = [
    remark('praise', { kind: 'strength', name: 'Well seen', tags: ['imagery'] }),
    remark('source', { name: 'Where from?', tags: ['source'], criterion: 'Evidence' }),
    remark('splice', { name: 'Not a comma', tags: ['comma splice'], criterion: 'Language' }),
  ];

  it('what was never used stands by its tags, and says why', () => {
    const suggest = suggester(bank, [], 'en');
    const [first] = suggest(at('Scientists say that plastic will outweigh fish.'), 'en');
    expect(first).toMatchObject({
      id: 'source',
      reasons: [{ why: 'label', label: 'source', says: 'claims something and names no source near it' }],
    });
    expect(suggest(at('The tide was out, we walked to the wreck.'), 'en')[0]!.id).toBe('splice');
    expect(suggest(at('It lay there like a strip of foil.'), 'en')[0]!.id).toBe('praise');
  });

  it('what was used on like passages stands first the next time, though no tag says so', () => {
    const own = [...bank, remark('mine')];
    const history = [at('The lamp is red.'), at('The buoy is green.'), at('The gate is blue.')].map((passage) => ({
      ...passage,
      remark: 'mine',
    }));
    const [first] = suggester(own, history, 'en')(at('The boat is white.'), 'en');
    expect(first).toMatchObject({ id: 'mine', reasons: [{ why: 'like', uses: 3 }] });
  });

  it('follows the kind and the criterion that the teacher chose', () => {
    const suggest = suggester(bank, [], 'en');
    const passage = at('Scientists say that it lay there like a foil.');
    expect(suggest({ ...passage, kind: 'strength' }, 'en')[0]!.id).toBe('praise');
    expect(
      suggest({ ...passage, criterion: 'language' }, 'en')
        .map(({ id }) => id)
        .indexOf('source'),
    ).toBeGreaterThan(0);
  });

  it('keeps its last place for one that is new and fits, and never shows more than there is room for', () => {
    const used = Array.from({ length: 20 }, (_, i) => remark(`used ${i}`));
    const history = used.flatMap(({ id }) => [1, 2, 3].map(() => ({ ...at('Experts say so.'), remark: id })));
    const found = suggester([...used, bank[1]!], history, 'en')(at('Experts say so.'), 'en');
    expect(found).toHaveLength(MOST_SUGGESTED);
    expect(found.at(-1)!.id).toBe('source');
    expect(suggester([], [], 'en')(at('x'), 'en')).toEqual([]);
  });

  it('shows only what may be shown', () => {
    const found = suggester(bank, [], 'en')(at('Experts say so.'), 'en', (id) => id !== 'source');
    expect(found.map(({ id }) => id)).not.toContain('source');
  });
});

/** For each detector a passage that has it, and one that has not. */
const EXAMPLES: Record<string, [yes: string, no: string]> = {
  'claim-without-source': ['Experts agree on this.', 'A gull stood on the post.'],
  'source-named': ['The level rises (Moss, 2014).', 'The level rises.'],
  'long-sentence': [Array(40).fill('word').join(' '), 'Short it is.'],
  passive: ['The gate was closed.', 'They closed the gate.'],
  'repeated-word': ['Mud lies on mud beside mud.', 'Mud lies on sand.'],
  'same-beginnings': ['I went. I saw.', 'I went. Then rain came.'],
  'number-without-unit': ['The depth was 1.4 and rising.', 'The depth was 1.4 m and rising.'],
  measured: ['The depth was 1.4 m.', 'The depth was great.'],
  hedge: ['Perhaps it might be so.', 'It is so.'],
  'comma-splice': ['The gate is locked, nobody is there, it is late.', 'When the gate is locked, nobody is there.'],
  misspelling: ['We definately saw it.', 'We definitely saw it.'],
  'first-person': ['I took my bag.', 'She took her bag.'],
  heading: ['The north wall', 'The north wall is long.'],
  quotation: ['He said: “Nobody came home that year.”', 'He said that nobody came home.'],
  informal: ["It's kinda boring.", 'It is dull.'],
  vague: ['Several things were interesting.', 'Two ropes were frayed.'],
  sweeping: ['Everybody always comes.', 'Two of them came.'],
  connective: ['However, the wall held.', 'The wall held.'],
  abrupt: [
    'Cockles live two inches down in the mud of the bay.',
    'This is why cockles live two inches down in the mud.',
  ],
  opening: ['We begin.', 'We begin.'],
  ending: ['In conclusion, it was wide.', 'It was wide.'],
  example: ['For example, the slip.', 'The slip.'],
  question: ['Who knows?', 'Nobody knows.'],
  fragment: ['Because of the tide.', 'We ran because of the tide.'],
  list: ['Mud, posts, weed, gulls, stones.', 'Mud and posts.'],
  'tense-shift': ['He came and says no.', 'He came and said no.'],
  agreement: ['The birds was there. There is many.', 'The birds were there.'],
  image: ['It lay like a sheet of tin.', 'It lay in the sun.'],
  calculation: ['4 × 12 = 48', 'Forty-eight of them.'],
  'too-exact': ['It is 0.034782 steep.', 'It is 0.03 steep.'],
  reasoning: ['It sinks because it is wet.', 'It sinks.'],
  'no-reasoning': ['The lowest step of the slip is green.', 'The step is green because it is wet.'],
  'other-side': ['Although it is slow, it comes.', 'It comes.'],
  'one-sided': ['They must close it.', 'They close it.'],
  'technical-term': ['The bioturbation is called mixing.', 'The mud moves.'],
  abbreviation: ['The MHWS mark is brass.', 'The upper mark is brass.'],
  'unclear-pronoun': ['This made it worse.', 'The wall made it worse.'],
  apostrophe: ['I dont know.', 'I don’t know.'],
  'missing-capital': ['On sunday i left.', 'On Sunday I left.'],
  wordy: ['In order to cross, it is important to note the tide.', 'Look at the tide before you cross.'],
  'many-sentences': ['It is. It was. It has. It had.', 'It is.'],
  'very-short': ['The mud is soft.', 'The mud by the yacht club is soft enough to swallow a boot.'],
  figure: ['Figure 2 shows it.', 'The post shows it.'],
  contrast: ['It is wider than the other.', 'It is wide.'],
  method: ['We counted them twice.', 'They are many.'],
  opinion: ['I think it is ugly.', 'It is brown.'],
  'spoken-filler': ['It was, um, wide.', 'It was wide.'],
  'doubled-word': ['It was the the bridge.', 'It was the bridge.'],
  'missing-comma': ['When the water had gone the birds came.', 'When the water had gone, the birds came.'],
  'colon-semicolon': ['It rained; we left.', 'It rained.'],
  'specific-detail': ['Eleven barnacles on the north edge.', 'Barnacles sat there.'],
  'task-words': ['In this essay I will write about mud.', 'The mud is deep.'],
  'heavy-nouns': ['The consideration of its importance is a requirement.', 'We think it matters.'],
};

describe('detectors', () => {
  it('have an example each', () => {
    expect(DETECTORS.map(({ name }) => name).sort()).toEqual(Object.keys(EXAMPLES).sort());
  });

  it.each(DETECTORS)('$name finds what it is for, and nothing else', ({ name, find }) => {
    const [yes, no] = EXAMPLES[name]!;
    const inside = {
      before: 'The creek\nWe came from the bridge, and it was a long way.\n',
      after: '\nThen we went on to the sluice.',
    };
    const outside = name === 'opening' ? { before: '', after: '' } : inside;
    expect(find(readPassage({ passage: yes, ...outside }, 'en'))).toBeGreaterThan(0);
    expect(find(readPassage({ passage: no, ...inside }, 'en'))).toBe(0);
  });

  it.each(DETECTORS)('$name answers from 0 to 1 whatever it is given', ({ find }) => {
    for (const passage of [
      '',
      ' ',
      '\n',
      '…',
      '潮が引く。',
      'المد والجزر',
      '7',
      'x'.repeat(5000),
      'a, '.repeat(3000),
    ]) {
      const found = find(readPassage({ before: '', passage, after: '' }, 'en'));
      expect(found).toBeGreaterThanOrEqual(0);
      expect(found).toBeLessThanOrEqual(1);
    }
  });
});
