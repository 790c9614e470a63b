import type { Table, TableCell } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import type { Part } from './pptx-part.ts';
import type { SlideParts } from './pptx-shapes.ts';
import { paragraphsOf } from './pptx-text.ts';
import { attribute, child, children, numberOf, path } from './xml.ts';

/** A table of a slide (ECMA-376 Part 1, section 21.1.3), with the widths of its columns and the colours of its cells. */
export function pptxTable(table: Element, { parts, part }: { parts: SlideParts; part: Part }): Table {
  const properties = child(table, 'tblPr');
  const is = (name: string): boolean => ['1', 'true'].includes(attribute(properties, name) ?? '');
  const style = children(parts.tableStyles, 'tblStyle').find(
    (one) => attribute(one, 'styleId') === child(properties, 'tableStyleId')?.textContent?.trim(),
  );
  const sizes = children(child(table, 'tblGrid'), 'gridCol').map((column) => numberOf(column, 'w') ?? 0);
  const sum = sizes.reduce((total, size) => total + size, 0);
  const rows = children(table, 'tr');

  /** The parts of the style that a cell has, the nearest first (section 20.1.4.2.26). */
  const stylesOf = (row: number, column: number): (Element | undefined)[] =>
    [
      ...(is('firstRow') && row === 0 ? ['firstRow'] : []),
      ...(is('lastRow') && row === rows.length - 1 ? ['lastRow'] : []),
      ...(is('firstCol') && column === 0 ? ['firstCol'] : []),
      ...(is('lastCol') && column === sizes.length - 1 ? ['lastCol'] : []),
      ...(is('bandRow') ? [bandOf(row - Number(is('firstRow')), 'H')] : []),
      ...(is('bandCol') ? [bandOf(column - Number(is('firstCol')), 'V')] : []),
      'wholeTbl',
    ].map((name) => child(style, name));

  function cellOf(cell: Element, row: number, column: number): TableCell {
    const [columns, height] = [numberOf(cell, 'gridSpan') ?? 1, numberOf(cell, 'rowSpan') ?? 1];
    const own = child(cell, 'tcPr');
    const styles = stylesOf(row, column);
    const filled = [own, ...styles.map((one) => path(one, 'tcStyle', 'fill'))].find(parts.colors.isFilled);
    const fill = parts.colors.fill(filled);
    const words = styles.map((one) => child(one, 'tcTxStyle')).filter((one) => one !== undefined);
    const color = words.map((one) => parts.colors.color(one)).find((found) => found !== undefined);
    const bold = words.some((one) => attribute(one, 'b') === 'on');
    const blocks = paragraphsOf(child(cell, 'txBody'), {
      styles: [child(parts.presentation.root, 'defaultTextStyle')],
      colors: parts.colors,
      targets: part.targets,
      equation: parts.equation,
      title: false,
      usual: { color, bold },
    });
    return {
      header: is('firstRow') && row === 0,
      ...(fill && { fill }),
      ...(columns > 1 && { columns }),
      ...(height > 1 && { rows: height }),
      blocks,
    };
  }

  return {
    type: 'table',
    ...(sizes.length > 0 && sizes.every((size) => size > 0) && { widths: sizes.map((size) => size / sum) }),
    rows: rows.map((row, at) =>
      children(row, 'tc').flatMap((cell, column) =>
        attribute(cell, 'hMerge') === '1' || attribute(cell, 'vMerge') === '1' ? [] : [cellOf(cell, at, column)],
      ),
    ),
  };
}

const bandOf = (index: number, direction: 'H' | 'V'): string => `band${(Math.abs(index) % 2) + 1}${direction}`;
