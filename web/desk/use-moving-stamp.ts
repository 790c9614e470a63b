import type { Anchor } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import { useDebounceFn } from '@vueuse/core';
import { computed, watch, type ComputedRef } from 'vue';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import type { Choosing } from './use-choosing.ts';

/** Milliseconds without a step, after which a stamp stays where it was moved to. */
const STAYS = 400;

interface Options {
  /** The remark in focus. */
  focused: ComputedRef<Remark | undefined>;
  returned: ComputedRef<boolean>;
  choosing: Choosing;
}

/** A stamp on a page, while it is in focus, is the box that is chosen: it moves and grows with the mouse and the keys. */
export function useMovingStamp({ focused, returned, choosing }: Options): {
  moving: ComputedRef<Remark | undefined>;
  /** Something of the work is chosen; where a stamp is moving, that is its new place. */
  choose(anchor: Anchor | undefined): void;
} {
  const actions = useFeedbackActions();
  const moving = computed(() => {
    const remark = focused.value;
    return remark?.stamp && remark.anchor.type === 'region' && !returned.value ? remark : undefined;
  });
  watch(moving, (next, before) => {
    if (next && next.id !== before?.id) choosing.choose(next.anchor);
    else if (!next && before) choosing.choose(undefined);
  });
  const move = useDebounceFn((remark: Remark, anchor: Anchor) => actions.amend(remark, { anchor }), STAYS);

  function choose(anchor: Anchor | undefined): void {
    if (moving.value && anchor?.type === 'region') void move(moving.value, anchor);
    choosing.choose(anchor);
  }

  return { moving, choose };
}
