import { isTextBlock, type Block, type MathNode, type Run, type TextBlock } from '#core/folio';

/*
 * What a library would drop is carried past it as text between two noncharacters, which no document contains
 * (Unicode Standard, section 23.7), and put in its place afterwards.
 */
const OPEN = '\ufdd0';
const CLOSE = '\ufdd1';
const PLACEHOLDER = new RegExp(`${OPEN}(number|math)(\\d+)${CLOSE}`);
const SPLIT = new RegExp(`(${OPEN}(?:number|math)\\d+${CLOSE})`);

/** What was taken out of a document, in the order in which it was found. */
export class Placeholders {
  readonly #numbers: string[] = [];
  readonly #equations: { math: MathNode; text: string }[] = [];

  number(marker: string): string {
    return `${OPEN}number${this.#numbers.push(marker) - 1}${CLOSE}`;
  }

  math(math: MathNode): string {
    return `${OPEN}math${this.#equations.push({ math, text: mathText(math) }) - 1}${CLOSE}`;
  }

  /** The blocks with everything in its place again. */
  restore(blocks: readonly Block[]): Block[] {
    return blocks.map((block) => {
      if (isTextBlock(block)) return this.#inText(block);
      if (block.type !== 'table') return block;
      const rows = block.rows.map((row) =>
        row.map((cell) => ({ ...cell, blocks: cell.blocks.map((inner) => this.#inText(inner)) })),
      );
      return { ...block, rows };
    });
  }

  #inText(block: TextBlock): TextBlock {
    let marker: string | undefined;
    const runs = block.runs.flatMap((run) =>
      run.text.split(SPLIT).flatMap((text): Run[] => {
        const [, type, index] = PLACEHOLDER.exec(text) ?? [];
        if (type === undefined) return text === '' && run.note === undefined ? [] : [{ ...run, text }];
        if (type === 'math') return [{ marks: run.marks, ...this.#equations[Number(index)]! }];
        marker = this.#numbers[Number(index)];
        return [];
      }),
    );
    if (marker === undefined) return { ...block, runs };
    if (block.type === 'paragraph') return { ...block, type: 'item', depth: 0, marker, runs };
    return { ...block, marker, runs };
  }
}

/** The characters of an equation in the order in which it is drawn. */
const mathText = (math: MathNode | string): string =>
  typeof math === 'string' ? math : math.children.map(mathText).join('');
