import { blockText, canonicalText, textBlocks, type Block } from '#core/folio';
import { describe, expect, it } from 'vitest';
import { blocksOfHtml } from './html-blocks.ts';

const textOf = (html: string): string => canonicalText(blocksOfHtml(html));
const run = (text: string, ...marks: string[]) => ({ text, marks });

describe('blocksOfHtml', () => {
  it('reads headings and paragraphs with their marks, nested ones too', () => {
    expect(blocksOfHtml('<h2>A</h2><p>b <strong>c <em>d</em></strong> <u>e</u></p>')).toEqual([
      { type: 'heading', level: 2, runs: [run('A')] },
      {
        type: 'paragraph',
        runs: [run('b '), run('c ', 'bold'), run('d', 'bold', 'italic'), run(' '), run('e', 'underline')],
      },
    ]);
  });

  it('reads blocks inside of what is none, and of elements of a page’s own making; the caption of a table stands above it', () => {
    expect(
      textOf('<span><p>one</p><b>two</b></span><my-note><div>three</div></my-note><x-word>four</x-word> five'),
    ).toBe('one\ntwo\nthree\nfour five\n');
    expect(blocksOfHtml('<table><caption>Gulls</caption><tr><td>7</td></tr></table>').map(({ type }) => type)).toEqual([
      'paragraph',
      'table',
    ]);
  });

  it('knows quotations and captions, also in each other', () => {
    const html = `<blockquote><p>one</p><ul><li>two</li></ul><table><caption>three</caption><tr><td>four</td></tr></table></blockquote>
      <figure><p>five</p><figcaption>six<p>seven</p></figcaption></figure>`;
    const roles = textBlocks(blocksOfHtml(html)).map((block) => [blockText(block).trim(), block.role]);
    expect(roles).toEqual([
      ['one', 'quotation'],
      ['two', 'quotation'],
      ['three', 'caption'],
      ['four', undefined],
      ['five', undefined],
      ['six', 'caption'],
      ['seven', 'caption'],
    ]);
  });

  it('draws calls of notes by their role, and no way back', () => {
    const html =
      '<p>word<a href="#n1" role="doc-noteref">3</a></p><ol><li>note<a href="#c1" role="doc-backlink">↩</a></li></ol>';
    expect(textOf(html)).toBe('word\nnote\n');
    expect(textBlocks(blocksOfHtml(html))[0]!.runs.at(-1)).toMatchObject({ note: '3' });
  });

  it('sets everything from the right that stands in what is', () => {
    const html = `<main dir="rtl"><h1>a</h1><p>b</p>c<ul><li>d</li><li><p>e</p><div dir="ltr">f</div></li></ul><table><tr><td>g</td></tr></table><blockquote>h</blockquote></main>i`;
    const directions = textBlocks(blocksOfHtml(html)).map((block) => [blockText(block), block.direction]);
    expect(directions).toEqual([
      ...['a', 'b', 'c', 'd', 'e'].map((text) => [text, 'rtl']),
      ['f', undefined],
      ['g', 'rtl'],
      ['h', 'rtl'],
      ['i', undefined],
    ]);
  });

  it('does not mark twice what is marked twice', () => {
    expect(blocksOfHtml('<p><b><strong>x</strong></b></p>')).toEqual([{ type: 'paragraph', runs: [run('x', 'bold')] }]);
  });

  it('numbers lists, also inside of lists, and where they start elsewhere', () => {
    const items = blocksOfHtml('<ol start="3"><li>a<ul><li>b</li></ul></li><li>c</li></ol>').map((block) =>
      block.type === 'item' ? [block.depth, block.marker, block.runs[0]!.text] : block.type,
    );
    expect(items).toEqual([
      [0, '3.', 'a'],
      [1, '•', 'b'],
      [0, '4.', 'c'],
    ]);
  });

  it('keeps the further paragraphs of a list item below its first', () => {
    const types = blocksOfHtml('<ul><li><p>a</p><p>b</p></li><li></li></ul>').map(({ type }) => type);
    expect(types).toEqual(['item', 'paragraph', 'item']);
  });

  it('reads tables row by row, tables inside of tables as text', () => {
    const html =
      '<table><thead><tr><th>a</th></tr></thead><tbody><tr><td><p>b</p><p>c</p></td><td><table><tr><td>d</td></tr></table></td></tr></tbody></table>';
    const [table] = blocksOfHtml(html) as [Extract<Block, { type: 'table' }>];
    expect(table.rows.map((row) => row.map(({ header, blocks }) => [header, blocks.length]))).toEqual([
      [[true, 1]],
      [
        [false, 2],
        [false, 1],
      ],
    ]);
    expect(textOf(html)).toBe('a\nb\nc\nd\n');
  });

  it('sets pictures behind the paragraph they stand in, and knows only those of the document', () => {
    const html =
      '<p>see <img src="picture:0" alt="A wave"> here</p><p><img src="https://elsewhere.example/x.png"><img src="data:image/png;base64,AA"></p>';
    expect(blocksOfHtml(html).filter(({ type }) => type === 'picture')).toEqual([
      { type: 'picture', picture: 0, alt: 'A wave' },
    ]);
    expect(textOf(html)).toBe('see  here\n\n');
  });

  it.each([
    '<script>alert(1)</script><p>x</p>',
    '<p>x<script>alert(1)</script></p>',
    '<style>p { color: red }</style><p>x</p>',
    '<p onclick="alert(1)">x</p>',
    '<p><a href="javascript:alert(1)">x</a></p>',
    '<p><a href=" javascript:alert(1)">x</a></p>',
    '<p><a href="data:text/html,x">x</a></p>',
    '<p><a href="//elsewhere.example">x</a></p>',
    '<svg><script>alert(1)</script></svg><p>x</p>',
    '<p>x<iframe src="https://elsewhere.example"></iframe></p>',
  ])('takes nothing but words out of %s', (html) => {
    const blocks = blocksOfHtml(html);
    expect(JSON.stringify(blocks)).not.toMatch(/alert|color|elsewhere|href|javascript|data:/);
    expect(textOf(html)).toBe('x\n');
  });

  it('reads words that stand in no paragraph, and containers as what is in them', () => {
    expect(textOf('loose <b>words</b><div><p>in</p>between</div><!-- no -->')).toBe('loose words\nin\nbetween\n');
  });

  it('reads equations as they are drawn, and drops what is not drawn', () => {
    const [block] = blocksOfHtml(
      '<p>so <math><semantics><mrow><mfrac><mn>1</mn><mn>2</mn></mfrac><msup><mi>v</mi><mn>2</mn></msup></mrow><annotation encoding="application/x-tex">\\frac12</annotation></semantics></math> then</p>',
    );
    expect(block).toMatchObject({
      runs: [{ text: 'so ' }, { text: '12v2', math: { element: 'math' } }, { text: ' then' }],
    });
    expect(JSON.stringify(block)).not.toContain('frac12');
    expect(JSON.stringify(blocksOfHtml('<p><math><mi onclick="x()">a</mi><script>b</script></math></p>'))).not.toMatch(
      /onclick|script/,
    );
  });

  it('is nothing for nothing', () => {
    expect(blocksOfHtml(' \n ')).toEqual([]);
  });
});
