import type { RouteLocationRaw, Router } from 'vue-router';
import { isOther } from './speaker.ts';

/** Goes on after somebody has come in: in a new page where this one has spoken for somebody else. */
export async function goOn(router: Router, to: RouteLocationRaw): Promise<void> {
  if (isOther.value) location.assign(router.resolve(to).href);
  else await router.push(to);
}
