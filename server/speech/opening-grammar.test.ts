import { expect, it } from 'vitest';
import { openingGrammar } from './opening-grammar.ts';

it('a grammar of openings has the first words always, and one more each time', () => {
  expect(openingGrammar(['look', 'at', 'the', "tide's", 'turn'], 3)).toBe(
    [
      '#JSGF V1.0 UTF-8;',
      'grammar opening;',
      'public <opening> = look at the [<w0>];',
      "<w0> = tide's [<w1>];",
      '<w1> = turn;',
      '',
    ].join('\n'),
  );
  expect(openingGrammar(['look'], 1)).toContain('public <opening> = look;');
});
