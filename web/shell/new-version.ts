import { ref } from 'vue';

/** The app has been renewed since this page was opened, and a part of the old one is gone. */
export const isOutdated = ref(false);

/** Notices where a part of the app does not come although the server is there. */
export function findNewVersion(): void {
  addEventListener('vite:preloadError', () => {
    void fetch('/', { method: 'HEAD', cache: 'no-store' }).then(
      ({ ok }) => (isOutdated.value ||= ok),
      () => undefined,
    );
  });
}
