import type { Command as KeyCommand } from '../shell/command.ts';

/** What can be done at the desk, by a key, a menu or a button. */
export interface DeskDeeds {
  speak(): void;
  hush(): void;
  /** Records all that is said and done, until it is ended. */
  talkThrough(): void;
  pause(): void;
  discard(): void;
  play(): void;
  faster(): void;
  /** From 0. */
  setKind(index: number): void;
  putAside(): void;
  step(by: 1 | -1): void;
  stepSentence(by: 1 | -1): void;
  stepStudent(by: 1 | -1): void;
  box(): void;
  /** Begins to draw, or ends it. */
  ink(): void;
  write(content?: { private?: boolean }): void;
  suggest(): void;
  film(picture: 'camera' | 'screen'): void;
  editSound(): void;
  mend(): void;
  /** Opens what stands in the drawer, or closes it. */
  /** Leads the keyboard to the next criterion that has no score, or to that after a given one. */
  score(after?: string): void;
  open(drawer: 'keys' | 'microphone' | 'emoji' | 'stamp' | 'kinds' | 'search' | 'bank' | 'keep'): void;
  /** Says that the work may go out. */
  done(): void;
  nextInQueue(): void;
  undo(): void;
  redo(): void;
}

export type Command = KeyCommand<DeskDeeds>;

/** All commands of the desk. Its keys, the list that `?` shows, the menu and the voice bar are made from these. */
export const COMMANDS: readonly Command[] = [
  {
    ...{ id: 'speak', key: ' ', shown: 'Space, held', held: true },
    title: 'Speak about your selection, or about the whole work',
    run: (desk) => desk.speak(),
  },
  {
    ...{ id: 'talk', key: 'l', shown: 'L', menu: true },
    title: 'Talk it through: speak on while you scroll, select and draw',
    run: (desk) => desk.talkThrough(),
  },
  { id: 'pause', key: 'enter', shown: 'Enter', title: 'While speaking: pause, and go on', run: (desk) => desk.pause() },
  {
    ...{ id: 'discard', key: 'escape', shown: 'Escape', where: 'typing' },
    title: 'Throw away what is being recorded',
    run: (desk) => desk.discard(),
  },
  {
    ...{ id: 'next-sentence', key: 'arrowdown', shown: 'Down', where: 'work' },
    title: 'In the work: select the next sentence',
    run: (desk) => desk.stepSentence(1),
  },
  {
    ...{ id: 'previous-sentence', key: 'arrowup', shown: 'Up', where: 'work' },
    title: 'In the work: select the sentence before',
    run: (desk) => desk.stepSentence(-1),
  },
  { id: 'extend', shown: 'Shift + arrows', title: 'In the work: make the selection longer or shorter' },
  {
    ...{ id: 'box', key: 'm', shown: 'M' },
    title:
      'Draw a box on a page, slide or picture, moved by arrow keys, sized with Shift; choose the moment of a recording',
    run: (desk) => desk.box(),
  },
  {
    ...{ id: 'ink', key: 'i', shown: 'I' },
    title: 'Draw on the work, or stop drawing',
    run: (desk) => desk.ink(),
  },
  { id: 'write', key: 't', shown: 'T', menu: true, title: 'Write a remark', run: (desk) => desk.write() },
  { id: 'suggest', key: 'g', shown: 'G', menu: true, title: 'Suggest other words', run: (desk) => desk.suggest() },
  { id: 'private', menu: true, title: 'Private note, for teachers only', run: (desk) => desk.write({ private: true }) },
  { id: 'stamp', key: 'x', shown: 'X', menu: true, title: 'Stamp', run: (desk) => desk.open('stamp') },
  { id: 'react', key: 'r', shown: 'R', menu: true, title: 'React with an emoji', run: (desk) => desk.open('emoji') },
  { id: 'camera', menu: true, title: 'Camera note: picture and voice', run: (desk) => desk.film('camera') },
  { id: 'screen', menu: true, title: 'Screen note: screen and voice', run: (desk) => desk.film('screen') },
  {
    ...{ id: 'again', key: 'a', shown: 'A', menu: true },
    title: 'Say it again: a remark from your bank',
    run: (desk) => desk.open('bank'),
  },
  {
    ...{ id: 'keep', key: 'k', shown: 'K' },
    title: 'Keep this remark in your bank',
    run: (desk) => desk.open('keep'),
  },
  {
    ...{ id: 'score', key: 'c', shown: 'C' },
    title: 'Score: to the next criterion without a score; there, a digit chooses its level',
    run: (desk) => desk.score(),
  },
  { id: 'play', key: 'p', shown: 'P', title: 'Play or pause the remark you are on', run: (desk) => desk.play() },
  { id: 'faster', key: 's', shown: 'S', title: 'Play faster or slower', run: (desk) => desk.faster() },
  {
    id: 'cut',
    key: 'e',
    shown: 'E',
    title: 'Trim and cut the sound of this remark',
    run: (desk) => desk.editSound(),
  },
  {
    ...{ id: 'mend', key: 'w', shown: 'W' },
    title: 'Correct its transcript; Enter goes to the next doubtful word',
    run: (desk) => desk.mend(),
  },
  { id: 'find', key: 'f', shown: 'F', title: 'Find remarks by their words', run: (desk) => desk.open('search') },
  { id: 'next', key: 'b', shown: 'B', title: 'Next remark', run: (desk) => desk.step(1) },
  { id: 'previous', key: 'v', shown: 'V', title: 'Previous remark', run: (desk) => desk.step(-1) },
  {
    ...{ id: 'kind', key: /^[1-9]$/, shown: '1 to 9' },
    title: 'Set the kind of this remark, or of your next one',
    run: (desk, key) => desk.setKind(Number(key) - 1),
  },
  {
    id: 'aside',
    key: 'delete',
    shown: 'Delete',
    title: 'Put this remark aside',
    run: (desk) => desk.putAside(),
  },
  { id: 'next-student', key: 'n', shown: 'N', title: 'Next student', run: (desk) => desk.stepStudent(1) },
  {
    ...{ id: 'previous-student', key: 'n', shift: true, shown: 'Shift + N' },
    title: 'Previous student',
    run: (desk) => desk.stepStudent(-1),
  },
  { ...{ id: 'done', key: 'd', shown: 'D' }, title: 'Done: ready to return', run: (desk) => desk.done() },
  { ...{ id: 'queue', key: 'q', shown: 'Q' }, title: 'Next in your queue', run: (desk) => desk.nextInQueue() },
  {
    id: 'undo',
    key: 'z',
    ctrl: true,
    shown: 'Ctrl + Z',
    title: 'Undo, back to when you sat down',
    run: (desk) => desk.undo(),
  },
  {
    ...{ id: 'redo', key: 'z', ctrl: true, shift: true, shown: 'Ctrl + Shift + Z' },
    title: 'Do it again',
    run: (desk) => desk.redo(),
  },
  { id: 'kinds', menu: true, title: 'Change the margin key', run: (desk) => desk.open('kinds') },
  { id: 'microphone', title: 'Choose and test your microphone', run: (desk) => desk.open('microphone') },
  { id: 'keys', key: '?', shown: '?', title: 'Show or hide these keys', run: (desk) => desk.open('keys') },
];

const byId = new Map(COMMANDS.map((command) => [command.id, command]));

/** @throws where there is no such command */
export function commandOf(id: string): Command {
  const command = byId.get(id);
  if (!command) throw new Error(`There is no command ${id}`);
  return command;
}
