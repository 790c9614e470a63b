import type { Command } from '../shell/command.ts';

/** What a student can do with returned work by a key. */
export interface ReturnedDeeds {
  /** Whether somebody listens through just now. */
  listens(): boolean;
  listenThrough(): void;
  pause(): void;
  end(): void;
  play(): void;
  step(by: 1 | -1): void;
  settle(): void;
  faster(): void;
  captions(): void;
  keys(): void;
}

export const COMMANDS: readonly Command<ReturnedDeeds>[] = [
  {
    ...{ id: 'listen', key: 'l', shown: 'L', once: true },
    title: 'Listen through all remarks, from the one you are on',
    run: (page) => page.listenThrough(),
  },
  {
    ...{ id: 'pause', key: ' ', shown: 'Space', once: true, when: (page) => page.listens() },
    title: 'While listening: pause, and go on',
    run: (page) => page.pause(),
  },
  {
    ...{ id: 'end', key: 'escape', shown: 'Escape', when: (page) => page.listens() },
    title: 'End listening',
    run: (page) => page.end(),
  },
  { id: 'next', key: 'b', shown: 'B', title: 'Next remark', run: (page) => page.step(1) },
  { id: 'previous', key: 'v', shown: 'V', title: 'Previous remark', run: (page) => page.step(-1) },
  {
    ...{ id: 'play', key: 'p', shown: 'P', once: true },
    title: 'Play or pause the remark you are on',
    run: (page) => page.play(),
  },
  { id: 'faster', key: 's', shown: 'S', title: 'Play faster or slower', run: (page) => page.faster() },
  { id: 'captions', key: 'c', shown: 'C', title: 'Captions on or off', run: (page) => page.captions() },
  {
    ...{ id: 'settle', key: 'g', shown: 'G', once: true },
    title: 'Got it; once more, and the remark is open again',
    run: (page) => page.settle(),
  },
  { id: 'keys', key: '?', shown: '?', title: 'Show or hide these keys', run: (page) => page.keys() },
];
