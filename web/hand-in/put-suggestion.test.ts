// @vitest-environment happy-dom
import { Editor } from '@tiptap/core';
import { TableKit } from '@tiptap/extension-table';
import StarterKit from '@tiptap/starter-kit';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { placedText, putSuggestion } from './put-suggestion.ts';

let editor: Editor;
const open = (content: string): Editor => (editor = new Editor({ content, extensions: [StarterKit, TableKit] }));
afterEach(() => editor.destroy());

const passage = (exact: string, prefix = '', suffix = '') =>
  ({ type: 'passage', start: 0, end: exact.length, quote: { exact, prefix, suffix } }) as const;

describe('a suggestion', () => {
  it('takes the place of the words it is about, as they stood', () => {
    open('<h1>Tide</h1><p>The reason is <strong>obvious</strong>, I think.</p>');
    expect(putSuggestion(editor)({ anchor: passage('obvious', 'reason is ', ', I'), suggestion: 'likely' })).toBe(true);
    expect(editor.getHTML()).toBe('<h1>Tide</h1><p>The reason is <strong>likely</strong>, I think.</p>');
    editor.commands.undo();
    expect(editor.getText()).toContain('obvious');
  });

  it('goes to the place that is meant, where the same words stand twice', () => {
    open('<p>It is very wet. The sand is very dry.</p>');
    putSuggestion(editor)({ anchor: passage('very ', 'The sand is ', 'dry.'), suggestion: '' });
    expect(editor.getText()).toBe('It is very wet. The sand is dry.');
  });

  it('is found in lists and tables, and after what was typed before it', () => {
    open(
      '<p>New words in front.</p><ul><li><p>one lion</p></li></ul><table><tbody><tr><td><p>two lions</p></td></tr></tbody></table>',
    );
    expect(putSuggestion(editor)({ anchor: passage('two lions'), suggestion: 'two seals' })).toBe(true);
    expect(editor.getText()).toContain('two seals');
    expect(editor.getText()).toContain('one lion');
  });

  it('is not put where the same word stands by chance', () => {
    open('<p>It was wet. Nothing else is said.</p>');
    const anchor = passage('is', 'The sand ', ' dry.');
    expect(putSuggestion(editor)({ anchor, suggestion: 'was' })).toBe(false);
  });

  it('changes nothing where its words are not there any more, or where it is about no words', () => {
    open('<p>All of it is new.</p>');
    expect(putSuggestion(editor)({ anchor: passage('the old words'), suggestion: 'others' })).toBe(false);
    expect(putSuggestion(editor)({ anchor: { type: 'whole' }, suggestion: 'others' })).toBe(false);
    expect(editor.getText()).toBe('All of it is new.');
  });

  it('every unit of the text has its place in the document', () => {
    const paragraphs = fc.array(
      fc.stringMatching(/^[a-z🦀é ]{1,12}$/u).map((text) => text.trim() || 'a'),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(paragraphs, (texts) => {
        open(texts.map((text) => `<p>${text}</p>`).join(''));
        const { text, places } = placedText(editor.state.doc);
        const same = [...text].length > 0 && text.length === places.length;
        const drawn = places.map((place, unit) =>
          text[unit] === '\n' ? '\n' : editor.state.doc.textBetween(place, place + 1),
        );
        editor.destroy();
        return same && drawn.join('') === text;
      }),
    );
    open('');
  });
});
