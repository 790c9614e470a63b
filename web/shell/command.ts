import { createGlobalState, useLocalStorage } from '@vueuse/core';

/** Something that can be done by a key, a menu or a button. `Deeds` does it. */
export interface Command<Deeds> {
  id: string;
  /** As `KeyboardEvent.key` has it, in small letters; none where it is in a menu only. */
  key?: string | RegExp;
  shift?: boolean;
  ctrl?: boolean;
  /** How the key is written. */
  shown?: string;
  /** What it does, for the list of keys and for menus. */
  title: string;
  /** `typing`: also for somebody who types; `work`: only in the work; otherwise on the whole page. */
  where?: 'typing' | 'work';
  /** Stands in a menu too. */
  menu?: true;
  /** Whether it goes on until the key comes up. */
  held?: true;
  /** Done once, however long the key is down. */
  once?: true;
  /** Whether the key means this just now; always where it is left out. */
  when?: (deeds: Deeds) => boolean;
  /** Left out where the browser does it by itself. */
  run?: (deeds: Deeds, key: string) => void;
}

/** A title with its key, as tooltips have it. */
export const withKey = ({ title, shown }: { title: string; shown?: string }): string =>
  shown ? `${title} (${shown})` : title;

/** Keys of one letter may stand in the way of dictation programs and screen readers, so they can be switched off (WCAG 2.1.4). */
export const useLetterKeys = createGlobalState(() => useLocalStorage('letter-keys', true));
