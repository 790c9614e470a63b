import { ref } from 'vue';
import type { Router } from 'vue-router';

/** Where somebody wanted to go whose page did not arrive: the line broke, or the app has been renewed since it was opened. */
export const lostPage = ref<string>();

const LOADED_FOR = 'loaded-for';
/** Milliseconds within which the same page is not loaded a second time. */
const PATIENCE = 10_000;

/** A page that does not arrive is asked for once more, as a whole; if that cannot help, it is told. */
export function findLostPages(router: Router): void {
  router.onError(async (_error, { fullPath }) => {
    const last = JSON.parse(sessionStorage.getItem(LOADED_FOR) ?? 'null') as { path: string; at: number } | null;
    const tried = last?.path === fullPath && Date.now() - last.at < PATIENCE;
    const reachable = await fetch(fullPath, { method: 'HEAD' }).then(
      ({ ok }) => ok,
      () => false,
    );
    if (tried || !reachable) return void (lostPage.value = fullPath);
    sessionStorage.setItem(LOADED_FOR, JSON.stringify({ path: fullPath, at: Date.now() }));
    location.assign(fullPath);
  });
  router.afterEach(() => void (lostPage.value = undefined));
}
