// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { documentOf, mathOf } from './typed-html.ts';

describe('what was typed, as a document', () => {
  it('keeps its words, lists and tables as they stand, and says how its letters are stored', () => {
    const html = '<h1>Tide</h1><ul><li><p>one</p></li></ul><table><tbody><tr><th>a</th></tr></tbody></table>';
    expect(documentOf('A & <B>', html)).toContain(html);
    expect(documentOf('A & <B>', html)).toContain('<title>A &#38; &#60;B&#62;</title>');
    expect(documentOf('A', html)).toMatch(/^<!doctype html>\n<html><head><meta charset="utf-8">/);
  });

  it('has its formulas as MathML, a line of its own for those that stand alone', () => {
    const inline = documentOf('A', '<p>so <span data-type="inline-math" data-latex="x^2"></span>.</p>');
    expect(inline).toMatch(/<p>so <span><math[^>]*>.*<msup>/s);
    expect(inline).not.toContain('data-latex=');
    const block = documentOf('A', '<div data-type="block-math" data-latex="\\frac{1}{2}"></div>');
    expect(block).toMatch(/<p><math[^>]*display="block".*<mfrac>/s);
  });

  it('keeps a formula that cannot be understood as it was typed', () => {
    expect(mathOf('\\nosuch{', false)).toContain('nosuch');
  });

  // https://www.w3.org/TR/mathml-core/: what LaTeX writes as x^2 is msup with its base and its exponent.
  it('draws powers and fractions as the standard has them', () => {
    expect(mathOf('x^2', false)).toContain('<msup><mi>x</mi><mn>2</mn></msup>');
    expect(mathOf('\\frac{a}{b}', false)).toContain('<mfrac><mi>a</mi><mi>b</mi></mfrac>');
  });
});
