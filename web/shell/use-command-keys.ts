import { useEventListener } from '@vueuse/core';
import { useLetterKeys, type Command } from './command.ts';

const TYPING = 'input:not([type=radio], [type=checkbox]), textarea, select, [contenteditable]';
const PRESSING = 'button, a, summary, [role=button], [role=menuitem], [role=radio], [role=option], input';

const isIn = (event: Event, selector: string): boolean =>
  event.target instanceof Element && event.target.closest(selector) !== null;

/** Keys that press what is in focus. */
const presses = (key: string): boolean => key === ' ' || key === 'enter';

/**
 * Has the keys of a page do what its table of commands says.
 * @param release called when a key that goes on while it is held comes up
 */
export function useCommandKeys<Deeds>(
  commands: readonly Command<Deeds>[],
  deeds: Deeds,
  release: () => void = () => undefined,
): void {
  const letters = useLetterKeys();
  let held = false;

  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    const command = commands.find((candidate) => answers(candidate, event));
    if (!command?.run) return;
    event.preventDefault();
    if ((command.held && held) || ((command.held || command.once) && event.repeat)) return;
    if (command.held) held = true;
    command.run(deeds, event.key);
  });

  function answers({ key, shift = false, ctrl = false, where, when }: Command<Deeds>, event: KeyboardEvent): boolean {
    const pressed = event.key.toLowerCase();
    const is = typeof key === 'string' ? key === pressed : key?.test(pressed);
    if (!is || when?.(deeds) === false) return false;
    if (where === 'typing') return true;
    if (isIn(event, TYPING) || event.altKey || (event.ctrlKey || event.metaKey) !== ctrl) return false;
    if (where === 'work' && (!isIn(event, '.folio') || event.shiftKey)) return false;
    if (presses(pressed) && isIn(event, PRESSING)) return false;
    const isLetter = pressed.length === 1 && pressed !== ' ' && !ctrl;
    if (isLetter && !letters.value) return false;
    // Where Shift tells two commands apart, it counts.
    return !sharesKey(key) || event.shiftKey === shift;
  }

  const sharesKey = (key: Command<Deeds>['key']): boolean =>
    commands.filter((command) => command.key === key).length > 1;

  const letGo = (): void => {
    if (held) release();
    held = false;
  };
  useEventListener(document, 'keyup', (event: KeyboardEvent) => {
    if (event.key === ' ') letGo();
  });
  useEventListener(window, 'blur', letGo);
}
