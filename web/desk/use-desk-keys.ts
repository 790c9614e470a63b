import { useEventListener } from '@vueuse/core';
import { COMMANDS, useLetterKeys, type Command, type DeskDeeds } from './commands.ts';

const TYPING = 'input:not([type=radio], [type=checkbox]), textarea, select, [contenteditable]';
const PRESSING = 'button, a, summary, [role=button], [role=menuitem], [role=radio], [role=option], input';

const isIn = (event: Event, selector: string): boolean =>
  event.target instanceof Element && event.target.closest(selector) !== null;

/** Keys that press what is in focus. */
const presses = (key: string): boolean => key === ' ' || key === 'enter';

/** Has the keys of the desk do what its table of commands says. */
export function useDeskKeys(desk: DeskDeeds): void {
  const letters = useLetterKeys();
  let held = false;

  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    const command = COMMANDS.find((candidate) => answers(candidate, event));
    if (!command?.run) return;
    event.preventDefault();
    if (command.held && (held || event.repeat)) return;
    if (command.held) held = true;
    command.run(desk, event.key);
  });

  function answers({ key, shift = false, ctrl = false, where }: Command, event: KeyboardEvent): boolean {
    const pressed = event.key.toLowerCase();
    const is = typeof key === 'string' ? key === pressed : key?.test(pressed);
    if (!is) return false;
    if (where === 'typing') return true;
    if (isIn(event, TYPING) || event.altKey || (event.ctrlKey || event.metaKey) !== ctrl) return false;
    if (where === 'work' && (!isIn(event, '.folio') || event.shiftKey)) return false;
    if (presses(pressed) && isIn(event, PRESSING)) return false;
    const isLetter = pressed.length === 1 && pressed !== ' ' && !ctrl;
    if (isLetter && !letters.value) return false;
    // Where Shift tells two commands apart, it counts.
    return !sharesKey(key) || event.shiftKey === shift;
  }

  const release = (): void => {
    if (held) desk.hush();
    held = false;
  };
  useEventListener(document, 'keyup', (event: KeyboardEvent) => {
    if (event.key === ' ') release();
  });
  useEventListener(window, 'blur', release);
}

const sharesKey = (key: Command['key']): boolean => COMMANDS.filter((command) => command.key === key).length > 1;
