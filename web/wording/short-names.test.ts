import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shortNames } from './short-names.ts';

describe('shortNames', () => {
  it('are first names, with as much of the last name as tells two apart', () => {
    expect(shortNames(['Amaru Quispe', 'Ines Bettencourt', 'Ines Barata', 'Ines de la Luz'])).toEqual([
      'Amaru',
      'Ines Be.',
      'Ines Ba.',
      'Ines L.',
    ]);
    expect(shortNames(['Ana Li', 'Ana Lin'])).toEqual(['Ana Li', 'Ana Lin']);
    expect(shortNames(['Teuta', 'Teuta Hoxha', '', 'Sam  Ō'])).toEqual(['Teuta', 'Teuta H.', '', 'Sam']);
  });

  it('tell any two different names apart', () => {
    const word = fc.constantFrom('Ana', 'An', 'Li', 'Lin', 'Lima', 'Bo');
    const names = fc.uniqueArray(
      fc.tuple(word, word).map((parts) => parts.join(' ')),
      { maxLength: 12 },
    );
    fc.assert(fc.property(names, (all) => new Set(shortNames(all)).size === all.length));
  });

  it('leave two people of the very same name alike', () => {
    expect(shortNames(['Ana Li', 'Ana Li'])).toEqual(['Ana', 'Ana']);
  });
});
