import { createGlobalState, useEventListener, useLocalStorage } from '@vueuse/core';

interface DeskKeys {
  /** The space bar went down. */
  speak: () => void;
  /** It came up, or the window lost the keyboard. */
  hush: () => void;
  pause: () => void;
  discard: () => void;
  play: () => void;
  /** From 0. */
  setKind: (index: number) => void;
  putAside: () => void;
  step: (by: 1 | -1) => void;
  stepSentence: (by: 1 | -1) => void;
  stepStudent: (by: 1 | -1) => void;
  box: () => void;
  write: () => void;
  suggest: () => void;
  react: () => void;
  stamp: () => void;
  editSound: () => void;
  mend: () => void;
  find: () => void;
  faster: () => void;
  undo: () => void;
  redo: () => void;
  help: () => void;
}

/** The keys of the desk, for the list that `?` shows. */
export const DESK_KEYS: readonly (readonly [key: string, meaning: string])[] = [
  ['Space, held', 'speak about what is chosen, or about the whole work'],
  ['Enter', 'while speaking: pause, and go on'],
  ['Escape', 'throw away what is being recorded'],
  ['Down, Up', 'in the work: select the next or previous sentence'],
  ['Shift + arrows', 'in the work: make the selection longer or shorter'],
  ['M', 'draw a box on a page, slide or picture; arrow keys move it, with Shift they change its size'],
  ['T', 'write a remark; Ctrl + Enter keeps it'],
  ['G', 'suggest other words'],
  ['R', 'react with an emoji'],
  ['X', 'stamp'],
  ['P', 'play or pause the remark in focus'],
  ['S', 'play faster or slower'],
  ['E', 'trim and cut the sound of the remark in focus'],
  ['W', 'mend the transcript of the remark in focus; Enter goes to the next doubtful word'],
  ['F', 'find remarks by their words'],
  ['B, V', 'next or previous remark'],
  ['1 to 9', 'set the kind of the remark in focus, or of the next one'],
  ['Delete', 'put the remark in focus aside'],
  ['N, Shift + N', 'next or previous student'],
  ['Ctrl + Z', 'undo, for the whole sitting; with Shift, do it again'],
  ['?', 'show or hide these keys'],
];

const TYPING = 'input:not([type=radio], [type=checkbox]), textarea, select, [contenteditable]';
const PRESSING = 'button, a, summary, [role=button], [role=menuitem], [role=radio], [role=option], input';

const isIn = (event: Event, selector: string): boolean =>
  event.target instanceof Element && event.target.closest(selector) !== null;

/** Keys of one letter may stand in the way of dictation programs and screen readers, so they can be switched off (WCAG 2.1.4). */
export const useLetterKeys = createGlobalState(() => useLocalStorage('letter-keys', true));

export function useDeskKeys(keys: DeskKeys): void {
  const letters = useLetterKeys();
  let held = false;

  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (event.key === 'Escape') return keys.discard();
    if (isIn(event, TYPING) || event.altKey) return;
    if (event.ctrlKey || event.metaKey) {
      if (event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) keys.redo();
      else keys.undo();
      return;
    }
    if (event.key === ' ' && !isIn(event, PRESSING)) {
      event.preventDefault();
      if (!held && !event.repeat) keys.speak();
      held = true;
      return;
    }
    if (letters.value ? plainKey(event) || letterKey(event) : plainKey(event)) event.preventDefault();
  });

  const release = (): void => {
    if (held) keys.hush();
    held = false;
  };
  useEventListener(document, 'keyup', (event: KeyboardEvent) => {
    if (event.key === ' ') release();
  });
  useEventListener(window, 'blur', release);

  /** @returns whether the key was ours */
  function plainKey(event: KeyboardEvent): boolean {
    if (event.key === 'Delete') keys.putAside();
    else if (event.key === 'Enter' && !isIn(event, PRESSING)) keys.pause();
    else if (isIn(event, '.folio') && !event.shiftKey && event.key === 'ArrowDown') keys.stepSentence(1);
    else if (isIn(event, '.folio') && !event.shiftKey && event.key === 'ArrowUp') keys.stepSentence(-1);
    else return false;
    return true;
  }

  function letterKey(event: KeyboardEvent): boolean {
    if (/^[1-9]$/.test(event.key)) keys.setKind(Number(event.key) - 1);
    else {
      const command = LETTERS[event.key.toLowerCase()];
      if (!command) return false;
      command(event);
    }
    return true;
  }

  const LETTERS: Partial<Record<string, (event: KeyboardEvent) => void>> = {
    '?': keys.help,
    p: keys.play,
    s: keys.faster,
    e: keys.editSound,
    w: keys.mend,
    f: keys.find,
    m: keys.box,
    t: keys.write,
    g: keys.suggest,
    r: keys.react,
    x: keys.stamp,
    b: () => keys.step(1),
    v: () => keys.step(-1),
    n: ({ shiftKey }) => keys.stepStudent(shiftKey ? -1 : 1),
  };
}
