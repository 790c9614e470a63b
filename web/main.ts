import './theme/reset.css';
import '@fontsource/noto-emoji/400.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/literata/wght.css';
import '@fontsource-variable/literata/wght-italic.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { tryStorage } from './outbox/browser-store.ts';
import { loadSubjects, registerSubject } from './outbox/subjects.ts';
import { router } from './router.ts';
import { findLostPages } from './shell/lost-page.ts';
import { findNewVersion } from './shell/new-version.ts';
import './theme/styles.css';
import { vuetify } from './theme/theme.ts';

registerSubject('feedback', async () => (await import('./feedback/subject.ts')).feedbackSubject);
registerSubject('bank', async () => (await import('./bank/subject.ts')).bankSubject);
registerSubject('gradebook', async () => (await import('./gradebook/subject.ts')).gradebookSubject);
registerSubject('notes', async () => (await import('./notes/subject.ts')).noteSubject);

findLostPages(router);
findNewVersion();

// In development files have no lasting names.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  addEventListener('load', () => void navigator.serviceWorker.register('/worker.js').catch(() => undefined));

void tryStorage();

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');

// What sending needs is here before it is needed: after the app has been renewed its old files may be gone.
addEventListener('load', () => void loadSubjects());
