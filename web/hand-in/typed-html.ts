import katex from 'katex';

/** LaTeX as MathML Core, which the work, the browser and every reader of HTML can draw. */
export const mathOf = (latex: string, displayMode: boolean): string =>
  katex.renderToString(latex, { displayMode, output: 'mathml', throwOnError: false });

const escaped = (text: string): string => text.replace(/[&<>"]/g, (character) => `&#${character.charCodeAt(0)};`);

/**
 * What was typed as a document of its own, as it is handed in (https://html.spec.whatwg.org).
 * @param html as the editor has it; its formulas are LaTeX in `data-latex`
 */
export function documentOf(title: string, html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const formula of body.querySelectorAll<HTMLElement>('[data-latex]')) {
    const display = formula.dataset.type === 'block-math';
    const drawn = new DOMParser().parseFromString(mathOf(formula.dataset.latex!, display), 'text/html');
    const line = document.createElement(display ? 'p' : 'span');
    line.append(...drawn.querySelectorAll('math'));
    formula.replaceWith(line);
  }
  return `<!doctype html>\n<html><head><meta charset="utf-8"><title>${escaped(title)}</title></head><body>\n${body.innerHTML}\n</body></html>\n`;
}
