// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useLetterKeys } from '../shell/command.ts';
import { useCommandKeys } from '../shell/use-command-keys.ts';
import { COMMANDS, commandOf, type DeskDeeds } from './commands.ts';

const keys = {
  speak: vi.fn(),
  talkThrough: vi.fn(),
  hush: vi.fn(),
  pause: vi.fn(),
  discard: vi.fn(),
  play: vi.fn(),
  setKind: vi.fn(),
  putAside: vi.fn(),
  step: vi.fn(),
  stepSentence: vi.fn(),
  stepStudent: vi.fn(),
  box: vi.fn(),
  ink: vi.fn(),
  write: vi.fn(),
  suggest: vi.fn(),
  film: vi.fn(),
  editSound: vi.fn(),
  mend: vi.fn(),
  open: vi.fn(),
  faster: vi.fn(),
  score: vi.fn(),
  done: vi.fn(),
  nextInQueue: vi.fn(),
  undo: vi.fn(),
  redo: vi.fn(),
} satisfies Record<keyof DeskDeeds, unknown>;
const desk = mount(
  {
    setup: () => useCommandKeys(COMMANDS, keys, keys.hush),
    template: '<main><article class="folio" tabindex="0" /><textarea /><button>b</button><input type="radio" /></main>',
  },
  { attachTo: document.body },
);

function press(key: string, on = 'main', more: KeyboardEventInit = {}): KeyboardEvent {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  (on === 'main' ? desk.element : desk.get(on).element).dispatchEvent(event);
  return event;
}
const release = (key: string): boolean => document.dispatchEvent(new KeyboardEvent('keyup', { key, bubbles: true }));

beforeEach(() => {
  release(' ');
  for (const key of Object.values(keys)) key.mockReset();
});

describe('the keys of the desk', () => {
  it('speak while the space bar is down, once however often it repeats, and never scroll', () => {
    expect(press(' ').defaultPrevented).toBe(true);
    press(' ', 'main', { repeat: true });
    press(' ');
    expect(keys.speak).toHaveBeenCalledOnce();
    release('a');
    expect(keys.hush).not.toHaveBeenCalled();
    release(' ');
    expect(keys.hush).toHaveBeenCalledOnce();
  });

  it('stop when the window loses the keyboard', () => {
    press(' ');
    window.dispatchEvent(new Event('blur'));
    release(' ');
    expect(keys.hush).toHaveBeenCalledOnce();
  });

  it('leave the space bar to who types and to what is pressed with it', () => {
    for (const on of ['textarea', 'button', 'input']) expect(press(' ', on).defaultPrevented).toBe(false);
    expect(keys.speak).not.toHaveBeenCalled();
  });

  it('leave every other key to who types, but for Escape', () => {
    for (const key of ['p', '1', 'Delete', '?', 'b']) press(key, 'textarea');
    for (const key of [keys.play, keys.setKind, keys.putAside, keys.open, keys.step])
      expect(key).not.toHaveBeenCalled();
    press('Escape', 'textarea');
    expect(keys.discard).toHaveBeenCalledOnce();
  });

  it('leave the browser its own keys', () => {
    for (const more of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      expect(press('p', 'main', more).defaultPrevented).toBe(false);
    expect(press('y').defaultPrevented).toBe(false);
    expect(keys.play).not.toHaveBeenCalled();
  });

  it('do what the list says', () => {
    press('P');
    press('b');
    press('v');
    press('3');
    press('9');
    press('Delete');
    press('?');
    expect(keys.play).toHaveBeenCalledOnce();
    expect(keys.step.mock.calls).toEqual([[1], [-1]]);
    expect(keys.setKind.mock.calls).toEqual([[2], [8]]);
    expect(keys.putAside).toHaveBeenCalledOnce();
    expect(keys.open.mock.calls).toEqual([['keys']]);
  });

  it('walk through sentences only in the work, and leave Shift to the selection', () => {
    press('ArrowDown');
    press('ArrowDown', '.folio', { shiftKey: true });
    expect(keys.stepSentence).not.toHaveBeenCalled();
    press('ArrowDown', '.folio');
    press('ArrowUp', '.folio');
    expect(keys.stepSentence.mock.calls).toEqual([[1], [-1]]);
  });

  it('go from student to student, pause, undo and do again', () => {
    press('n');
    press('N', 'main', { shiftKey: true });
    expect(keys.stepStudent.mock.calls).toEqual([[1], [-1]]);
    press('Enter');
    expect(keys.pause).toHaveBeenCalledOnce();
    press('Enter', 'button');
    expect(keys.pause).toHaveBeenCalledOnce();
    press('z', 'main', { ctrlKey: true });
    press('Z', 'main', { ctrlKey: true, shiftKey: true });
    press('z', 'textarea', { ctrlKey: true });
    expect([keys.undo, keys.redo].map(({ mock }) => mock.calls.length)).toEqual([1, 1]);
  });

  it('no two commands answer to the same keys, and every one that is shown and can be run has one', () => {
    const names = COMMANDS.filter(({ key }) => key).map(({ key, shift, ctrl, where }) =>
      [String(key), shift, ctrl, where].join(),
    );
    expect(new Set(names).size).toBe(names.length);
    expect(COMMANDS.filter(({ shown, run, key }) => shown && run && !key)).toEqual([]);
    expect(new Set(COMMANDS.map(({ id }) => id)).size).toBe(COMMANDS.length);
    expect(() => commandOf('dance')).toThrow();
  });

  it('every command of the table calls something of the desk', () => {
    for (const { id, run } of COMMANDS) {
      if (!run) continue;
      for (const key of Object.values(keys)) key.mockReset();
      run(keys, '1');
      expect(
        Object.values(keys).filter(({ mock }) => mock.calls.length === 1),
        id,
      ).toHaveLength(1);
    }
  });

  it('of one letter can be switched off; the others stay (WCAG 2.1.4)', () => {
    useLetterKeys().value = false;
    expect(press('p').defaultPrevented).toBe(false);
    press('3');
    expect([keys.play, keys.setKind].map(({ mock }) => mock.calls.length)).toEqual([0, 0]);
    press(' ');
    expect(keys.speak).toHaveBeenCalledOnce();
    useLetterKeys().value = true;
  });
});
