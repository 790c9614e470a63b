import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isLinkedByMail, loginFor, matchFiles, planRoster, readRoster, type Known } from './index.ts';

const names = (text: string, turned?: boolean): string[] => readRoster(text, turned).lines.map(({ name }) => name);

describe('readRoster', () => {
  it.each([
    ['one name a line', 'Aroha Ngata\n\n  Bashir   Osman \n', ['Aroha Ngata', 'Bashir Osman']],
    ['commas turn the name', 'Ngata, Aroha\nOsman, Bashir', ['Aroha Ngata', 'Bashir Osman']],
    ['tabs do not', 'Aroha\tNgata\nBashir\tOsman', ['Aroha Ngata', 'Bashir Osman']],
    ['a heading says it', 'Surname;First name\nNgata;Aroha', ['Aroha Ngata']],
    ['a heading in another language', 'Nachname|Vorname\nOsman|Bashir', ['Bashir Osman']],
    ['a comma inside quotation marks', '"Ngata, the elder",n1\n"Osman, B.",n2', ['Ngata, the elder', 'Osman, B.']],
    ['nothing', ' \n\n', []],
  ])('%s', (_, text, expected) => {
    expect(names(text)).toEqual(expected);
  });

  it('finds mail and number by how they look, in any column', () => {
    const { lines, twoParts } = readRoster('17-a; Aroha Ngata; aroha@example.org\n; Bashir Osman; bashir@example.org');
    expect(lines).toEqual([
      { line: 1, name: 'Aroha Ngata', mail: 'aroha@example.org', number: '17-a' },
      { line: 2, name: 'Bashir Osman', mail: 'bashir@example.org', number: '' },
    ]);
    expect(twoParts).toBe(false);
  });

  it('finds an address beside a name, as mail programs write it and as people do', () => {
    const read = (text: string) => readRoster(text).lines.map(({ name, mail }) => [name, mail]);
    expect(read('Aroha Ngata <aroha@example.org>\nBashir Osman <b@example.org>')).toEqual([
      ['Aroha Ngata', 'aroha@example.org'],
      ['Bashir Osman', 'b@example.org'],
    ]);
    expect(read('Ngata, Aroha <aroha@example.org>\nOsman, Bashir <b@example.org>')).toEqual([
      ['Aroha Ngata', 'aroha@example.org'],
      ['Bashir Osman', 'b@example.org'],
    ]);
    expect(
      read('Aroha Ngata\nBashir Osman; b@example.org\nCatrin Pryce\nd@example.org Dorji Wangmo\nE @ home'),
    ).toEqual([
      ...[
        ['Aroha Ngata', ''],
        ['Bashir Osman', 'b@example.org'],
        ['Catrin Pryce', ''],
      ],
      ...[
        ['Dorji Wangmo', 'd@example.org'],
        ['E @ home', ''],
      ],
    ]);
  });

  it('turns the two parts of a name where they are the other way round', () => {
    expect(readRoster('Aroha, Ngata\nBashir, Osman').twoParts).toBe(true);
    expect(names('Aroha, Ngata\nBashir, Osman', true)).toEqual(['Aroha Ngata', 'Bashir Osman']);
  });

  it('keeps the numbers of lines, and reads whatever is pasted', () => {
    expect(readRoster('Name\n\nAroha Ngata').lines).toMatchObject([{ line: 3, name: 'Aroha Ngata' }]);
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (text) => void readRoster(text)));
  });
});

describe('planRoster', () => {
  const known: Known[] = [
    { id: 'a', name: 'Aroha Ngata', mail: '', number: '', here: 'student', staff: false, own: true },
    { id: 'b', name: 'Bashir Osman', mail: 'b@example.org', number: '', here: null, staff: false, own: true },
    { id: 'c', name: 'Catrin Pryce', mail: '', number: '12', here: 'student', staff: false, own: false },
  ];
  const fates = (text: string, more: Partial<Known> = {}) =>
    planRoster(
      readRoster(text).lines,
      known.map((one) => ({ ...one, ...more })),
    ).map((line) => ('why' in line ? line.why : line.fate));

  it('says of each line what will come of it', () => {
    expect(fates('aroha ngata;\nDorji Wangmo;\nBASHIR OSMAN;B@example.org\nDorji Wangmo;\n-;\nEleni;nowhere@')).toEqual(
      [...['known', 'add', 'join', 'twice', 'noName', 'noMail']],
    );
  });

  it('tells two of one name apart by number or mail', () => {
    expect(fates('Catrin Pryce;12\nCatrin Pryce;13')).toEqual(['known', 'add']);
    expect(fates('Name;Number\nCatrin Price;12')).toEqual(['known']);
  });

  it('nobody has the address or the number of another', () => {
    expect(fates('Ann;1;a@example.org\nBea;2;a@example.org\nCid;1;c@example.org')).toEqual(['add', 'twice', 'twice']);
  });

  it('does not take a stranger for somebody because of a mistyped address, and nobody learns where they teach', () => {
    expect(fates('Somebody Else;b@example.org\nDorji;d@example.org')).toEqual(['otherName', 'add']);
    expect(fates('Aroha Ngata', { here: 'teacher', staff: true })).toEqual(['teaches']);
  });

  it('asks whoever is somebody else’s, and whoever teaches, instead of bringing them in', () => {
    const line = 'Bashir Osman;b@example.org';
    expect(fates(line, { own: false })).toEqual(['invite']);
    expect(fates(line, { staff: true })).toEqual(['invite']);
    expect(fates(line, { own: false, here: 'left' })).toEqual(['join']);
  });
});

describe('isLinkedByMail', () => {
  it('believes a trusted platform about students, and nobody about whoever teaches', () => {
    const asked = [true, false].map((trusted) => [false, true].map((staff) => isLinkedByMail(trusted, { staff })));
    expect(asked).toEqual([
      [true, false],
      [false, false],
    ]);
  });
});

describe('loginFor', () => {
  it.each([
    ['Mirza Hadžić', 'mirza-hadzic'],
    ["Siân  O'Neill ", 'sian-o-neill'],
    ['李 美心', '李-美心'],
    ['—', 'student'],
    ['Amaru Quispe', 'amaru-quispe-3'],
  ])('%s is %s', (name, login) => {
    expect(loginFor(name, new Set(['amaru-quispe', 'amaru-quispe-2']))).toBe(login);
  });
});

describe('matchFiles', () => {
  const students = [
    { id: 'a', name: 'Aroha Ngata', number: '2041' },
    { id: 'b', name: 'Bashir Osman' },
    { id: 'c', name: 'Bashir Karim' },
    { id: 'd', name: 'Mirza Hadžić' },
  ];

  it.each([
    ['scan_2041.pdf', 'a'],
    ['Ngata essay final.docx', 'a'],
    ['osman-bashir (2).pdf', 'b'],
    ['BashirKarim.odt', 'c'],
    ['hadzic.docx', 'd'],
    ['bashir.docx', undefined],
    ['essay.docx', undefined],
    ['Aroha Ngata and Bashir Osman.docx', undefined],
  ])('%s is of %s', (file, student) => {
    expect(matchFiles([file], students)).toEqual([student]);
  });
});
