import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { Person } from '#contract/basics';
import { readSession, signIn as signInEndpoint, signOut as signOutEndpoint, type SignIn } from '#contract/session';
import { call } from './api.ts';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const person = ref<Person | null>(null);
  const known = ref(false);

  async function load(): Promise<void> {
    person.value = (await call(readSession)).person;
    known.value = true;
  }

  async function signIn(credentials: SignIn): Promise<void> {
    person.value = (await call(signInEndpoint, { body: credentials })).person;
  }

  async function signOut(): Promise<void> {
    await call(signOutEndpoint);
    person.value = null;
  }

  return { person, known, load, signIn, signOut };
});
