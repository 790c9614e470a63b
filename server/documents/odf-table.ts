import type { Block, Table, TableCell, TextBlock } from '#core/folio';
import { isTextBlock } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import { colorOf, lookOf, points, property, withLook } from './odf-style.ts';
import type { OdfContext } from './odf-text.ts';
import { attribute, children, elements, numberOf } from './xml.ts';

/** Columns may be repeated; a slide has no table with more of them than this. */
const MOST_COLUMNS = 1000;

type BlocksOf = (parent: Element, context: OdfContext) => Block[];

interface Row {
  element: Element;
  header: boolean;
}

/** A table (ODF 1.3 Part 3, section 9.1). On a slide its columns keep their widths, and its cells their colours. */
export function odfTable(table: Element, context: OdfContext, blocksOf: BlocksOf): Table {
  const rows = rowsIn(table, false);
  if (!context.looks) return { type: 'table', rows: rows.map((row) => cellsOf(row, context, blocksOf)) };
  const columns = columnsIn(table);
  const sizes = columns.map((column) => {
    const { column: properties } = context.styles.style('table-column', attribute(column, 'table:style-name'));
    return points(property(properties, 'style:column-width')) ?? 0;
  });
  const sum = sizes.reduce((total, size) => total + size, 0);
  const usual = usualStyles(table, context, rows.length, columns.length);
  return {
    type: 'table',
    ...(sizes.length > 0 && sizes.every((size) => size > 0) && { widths: sizes.map((size) => size / sum) }),
    rows: rows.map((row, index) =>
      cellsOf(row, context, blocksOf, (cell, column) => [
        attribute(cell, 'table:style-name') ??
          attribute(row.element, 'table:default-cell-style-name') ??
          attribute(columns[column], 'table:default-cell-style-name'),
        usual(index, column),
      ]),
    ),
  };
}

const rowsIn = (parent: Element, header: boolean): Row[] =>
  elements(parent).flatMap((element) => {
    if (element.localName === 'table-header-rows') return rowsIn(element, true);
    if (element.localName === 'table-rows' || element.localName === 'table-row-group') return rowsIn(element, header);
    return element.localName === 'table-row' ? [{ element, header }] : [];
  });

const columnsIn = (parent: Element): Element[] =>
  elements(parent)
    .flatMap((element) => {
      if (['table-columns', 'table-header-columns', 'table-column-group'].includes(element.localName ?? ''))
        return columnsIn(element);
      if (element.localName !== 'table-column') return [];
      const times = numberOf(element, 'table:number-columns-repeated') ?? 1;
      return Array.from({ length: Math.min(MOST_COLUMNS, Math.max(1, times)) }, () => element);
    })
    .slice(0, MOST_COLUMNS);

/** Which style the template of a table gives to a cell (ODF 1.3 Part 3, section 16.20): the edges stand before the bands. */
function usualStyles(table: Element, { templates }: OdfContext, height: number, width: number) {
  const styles = templates.get(attribute(table, 'table:template-name') ?? '');
  const uses = (part: string): boolean => attribute(table, `table:use-${part}-styles`) === 'true';
  return (row: number, column: number): string | undefined => {
    const parts = [
      ...(uses('first-row') && row === 0 ? ['first-row'] : []),
      ...(uses('last-row') && row === height - 1 ? ['last-row'] : []),
      ...(uses('first-column') && column === 0 ? ['first-column'] : []),
      ...(uses('last-column') && column === width - 1 ? ['last-column'] : []),
      ...(uses('banding-rows') ? [bandOf(row - Number(uses('first-row')), 'rows')] : []),
      ...(uses('banding-columns') ? [bandOf(column - Number(uses('first-column')), 'columns')] : []),
      'body',
    ];
    return parts.map((part) => styles?.get(part)).find((name) => name !== undefined);
  };
}

/** The first one is odd. */
const bandOf = (index: number, of: 'rows' | 'columns'): string => `${index % 2 === 0 ? 'odd' : 'even'}-${of}`;

function cellsOf(
  { element, header }: Row,
  context: OdfContext,
  blocksOf: BlocksOf,
  stylesOf: (cell: Element, column: number) => (string | undefined)[] = () => [],
): TableCell[] {
  let column = 0;
  return elements(element).flatMap((cell): TableCell[] => {
    const isCovered = cell.localName === 'covered-table-cell';
    if (!isCovered && cell.localName !== 'table-cell') return [];
    const at = column++;
    if (isCovered) return [];
    const [columns, rows] = [
      numberOf(cell, 'table:number-columns-spanned') ?? 1,
      numberOf(cell, 'table:number-rows-spanned') ?? 1,
    ];
    const styles = stylesOf(cell, at).flatMap((name) =>
      name === undefined ? [] : [context.styles.style('table-cell', name)],
    );
    const fill = styles.map(({ graphic }) => fillOf(graphic)).find((found) => found !== undefined);
    const look = lookOf(styles.flatMap(({ text }) => text));
    return [
      {
        header,
        ...(fill && fill !== 'none' && { fill }),
        ...(columns > 1 && { columns }),
        ...(rows > 1 && { rows }),
        blocks: textIn(blocksOf(cell, context)).map((block) =>
          styles.length > 0 ? { ...block, runs: withLook(block.runs, look) } : block,
        ),
      },
    ];
  });
}

/** A table in a cell is read as its text. */
const textIn = (blocks: readonly Block[]): TextBlock[] =>
  blocks.flatMap((block): TextBlock[] => {
    if (isTextBlock(block)) return [block];
    return block.type === 'table' ? block.rows.flat().flatMap(({ blocks }) => blocks) : [];
  });

function fillOf(graphic: readonly Element[]): string | undefined {
  const fill = property(graphic, 'draw:fill');
  return fill === 'solid' ? colorOf(property(graphic, 'draw:fill-color')) : fill;
}

/** The templates of tables, as a file defines them for all of its slides. */
export const odfTemplates = (roots: readonly (Element | undefined)[]): Map<string, Map<string, string>> =>
  new Map(
    roots.flatMap((root) =>
      elements(root)
        .filter(({ localName }) => localName === 'styles')
        .flatMap((section) => children(section, 'table-template'))
        .map((template): [string, Map<string, string>] => [
          attribute(template, 'table:name') ?? attribute(template, 'text:name') ?? '',
          new Map(
            elements(template).map((part) => [
              part.localName ?? '',
              attribute(part, 'table:style-name') ?? attribute(part, 'text:style-name') ?? '',
            ]),
          ),
        ]),
    ),
  );
