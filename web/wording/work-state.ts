import type { WorkState } from '#core/workflow';

/** How far a work is, in a word and in a sign that is told apart by its shape. */
export const WORK_STATES: Record<WorkState | 'none', { sign: string; name: string }> = {
  none: { sign: '·', name: 'not handed in' },
  waiting: { sign: '○', name: 'waiting' },
  back: { sign: '↻', name: 'back again' },
  begun: { sign: '◐', name: 'begun' },
  ready: { sign: '●', name: 'ready' },
  returned: { sign: '✓', name: 'returned' },
};
