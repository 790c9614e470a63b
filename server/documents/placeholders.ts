import { isTextBlock, type Block, type MathNode, type Run, type Setting, type TextBlock } from '#core/folio';
import { mathText } from './math.ts';

/*
 * What a library would drop is carried past it as text between two noncharacters, which no document contains
 * (Unicode Standard, section 23.7), and put in its place afterwards.
 */
const OPEN = '\ufdd0';
const CLOSE = '\ufdd1';
const PLACEHOLDER = new RegExp(`${OPEN}(number|math|object|setting)(\\d+)${CLOSE}`);
const SPLIT = new RegExp(`(${OPEN}(?:number|math|object|setting)\\d+${CLOSE})`);

/** What was taken out of a document, in the order in which it was found. */
export class Placeholders {
  readonly #numbers: string[] = [];
  readonly #settings: Setting[] = [];
  /** What stands behind the paragraph in which an object was found. */
  readonly #objects: Block[][] = [];
  readonly #equations: { math: MathNode; text: string }[] = [];

  number(marker: string): string {
    return `${OPEN}number${this.#numbers.push(marker) - 1}${CLOSE}`;
  }

  math(math: MathNode): string {
    return `${OPEN}math${this.#equations.push({ math, text: mathText(math) }) - 1}${CLOSE}`;
  }

  setting(setting: Setting): string {
    return `${OPEN}setting${this.#settings.push(setting) - 1}${CLOSE}`;
  }

  object(blocks: Block[]): string {
    return `${OPEN}object${this.#objects.push(blocks) - 1}${CLOSE}`;
  }

  /** The blocks with everything in its place again; what cannot stand in a cell stands below its table. */
  restore(blocks: readonly Block[]): Block[] {
    return blocks.flatMap((block): Block[] => {
      const behind: Block[] = [];
      if (isTextBlock(block)) return [this.#inText(block, behind), ...behind];
      if (block.type !== 'table') return [block];
      const rows = block.rows.map((row) =>
        row.map((cell) => ({ ...cell, blocks: cell.blocks.map((inner) => this.#inText(inner, behind)) })),
      );
      return [{ ...block, rows }, ...behind];
    });
  }

  #inText(block: TextBlock, behind: Block[]): TextBlock {
    let marker: string | undefined;
    let setting: Setting = {};
    const runs = block.runs.flatMap((run) =>
      run.text.split(SPLIT).flatMap((text): Run[] => {
        const [, type, index] = PLACEHOLDER.exec(text) ?? [];
        if (type === undefined) return text === '' && run.note === undefined ? [] : [{ ...run, text }];
        if (type === 'object') behind.push(...this.#objects[Number(index)]!);
        if (type === 'object') return [];
        if (type === 'math') return [{ marks: run.marks, ...this.#equations[Number(index)]! }];
        if (type === 'setting') setting = this.#settings[Number(index)]!;
        else marker = this.#numbers[Number(index)];
        return [];
      }),
    );
    const set = { ...block, ...setting, runs };
    if (marker === undefined) return set;
    return set.type === 'paragraph' ? { ...set, type: 'item', depth: 0, marker } : { ...set, marker };
  }
}
