import { describe, expect, it } from 'vitest';
import { columnIndex, columnName, movedFormula, plainFormula } from './index.ts';

describe('columns', () => {
  it('are named and found again', () => {
    for (const index of [0, 25, 26, 701, 702, 16_383]) expect(columnIndex(columnName(index))).toBe(index);
    expect([columnIndex('xfd'), columnName(-1)]).toEqual([16_383, '']);
  });
});

describe('movedFormula', () => {
  it.each([
    ['A1*2', 'B3*2'],
    ['$A1+A$1+$A$1', '$A3+B$1+$A$1'],
    ['SUM(A1:Z9)', 'SUM(B3:AA11)'],
    ['IF(B2="A1","B$2",LOG10(C3))', 'IF(C4="A1","B$2",LOG10(D5))'],
    ["'Tide A1'!A1+Sheet1!B2", "'Tide A1'!B3+Sheet1!C4"],
    ['Rate_A1*A1', 'Rate_A1*B3'],
    ['SUM(A:A)', 'SUM(A:A)'],
  ])('moves the references of %s, and nothing else', (formula, moved) => {
    expect(movedFormula(formula, 2, 1)).toBe(moved);
  });

  it('says where a reference would leave the sheet, as spreadsheets do', () => {
    expect(movedFormula('A1+C3', -1, -1)).toBe('#REF!+B2');
  });
});

describe('plainFormula', () => {
  it.each([
    ['of:=SUM([.A1:.A3])', '=SUM(A1:A3)'],
    ['of:=[$Tides.B2]*[.$C$4]', '=Tides!B2*$C$4'],
    ['of:=[\'High tide\'.A1]&"[.A1"', '=\'High tide\'!A1&"[.A1"'],
    ["of:=['file:///home/zofia/tides.ods'#$Tides.A1]", '=other file Tides!A1'],
    ['=1+1', '=1+1'],
  ])('%s reads %s', (formula, plain) => {
    expect(plainFormula(formula)).toBe(plain);
  });
});
