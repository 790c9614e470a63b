import { createSharedComposable, useMediaQuery } from '@vueuse/core';

/** Whether there is no room for a margin beside the work, as on a phone or an upright tablet. The styles say the same. */
export const useNarrow = createSharedComposable(() => useMediaQuery('(max-width: 900px)'));
