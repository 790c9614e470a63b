import type { Kind } from '#contract/remarks';
import { useEventListener } from '@vueuse/core';
import { KINDS } from '../shared/kinds.ts';

interface DeskKeys {
  /** The space bar went down. */
  speak: () => void;
  /** It came up, or the window lost the keyboard. */
  hush: () => void;
  discard: () => void;
  play: () => void;
  setKind: (kind: Kind) => void;
  putAside: () => void;
  step: (by: 1 | -1) => void;
  stepSentence: (by: 1 | -1) => void;
  box: () => void;
  help: () => void;
}

/** The keys of the desk, for the list that `?` shows. */
export const DESK_KEYS: readonly (readonly [key: string, meaning: string])[] = [
  ['Space, held', 'speak about the selected words, or about the whole work'],
  ['Escape', 'throw away what is being recorded'],
  ['Down, Up', 'in the work: select the next or previous sentence'],
  ['Shift + arrows', 'in the work: make the selection longer or shorter'],
  ['M', 'draw a box on a page, slide or picture; arrow keys move it, with Shift they change its size'],
  ['P', 'play or pause the remark in focus'],
  ['B, V', 'next or previous remark'],
  ['1 to 4', 'set the kind of the remark in focus, or of the next one'],
  ['Delete', 'put the remark in focus aside'],
  ['?', 'show or hide these keys'],
];

const TYPING = 'input:not([type=radio]), textarea, select, [contenteditable]';
const PRESSING = 'button, a, summary, [role=button], [role=menuitem], [role=radio], input[type=radio]';

const isIn = (event: Event, selector: string): boolean =>
  event.target instanceof Element && event.target.closest(selector) !== null;

export function useDeskKeys(keys: DeskKeys): void {
  let held = false;

  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (event.key === 'Escape') return keys.discard();
    if (isIn(event, TYPING) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === ' ' && !isIn(event, PRESSING)) {
      event.preventDefault();
      if (!held && !event.repeat) keys.speak();
      held = true;
      return;
    }
    if (plainKey(event)) event.preventDefault();
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
    const number = Number(event.key);
    const kind = Number.isInteger(number) && event.key.trim() !== '' ? KINDS[number - 1] : undefined;
    if (kind) keys.setKind(kind.kind);
    else if (event.key === '?') keys.help();
    else if (event.key === 'Delete') keys.putAside();
    else if (event.key.toLowerCase() === 'p') keys.play();
    else if (event.key.toLowerCase() === 'm') keys.box();
    else if (event.key.toLowerCase() === 'b') keys.step(1);
    else if (event.key.toLowerCase() === 'v') keys.step(-1);
    else if (isIn(event, '.folio') && !event.shiftKey && event.key === 'ArrowDown') keys.stepSentence(1);
    else if (isIn(event, '.folio') && !event.shiftKey && event.key === 'ArrowUp') keys.stepSentence(-1);
    else return false;
    return true;
  }
}
