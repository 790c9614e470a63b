import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { Person } from '#contract/basics';
import * as endpoints from '#contract/session';
import type { SignIn } from '#contract/session';
import { call } from './api.ts';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const person = ref<Person | null>(null);
  const known = ref(false);

  async function load(): Promise<void> {
    person.value = (await call(endpoints.readSession)).person;
    known.value = true;
  }

  async function signIn(credentials: SignIn): Promise<void> {
    person.value = (await call(endpoints.signIn, { body: credentials })).person;
  }

  /** Somebody has just come in another way. */
  function enter(someone: Person | null): void {
    person.value = someone;
    known.value = true;
  }

  async function signOut(): Promise<void> {
    await call(endpoints.signOut);
    person.value = null;
  }

  async function signOutEverywhere(): Promise<void> {
    await call(endpoints.signOutEverywhere);
    person.value = null;
  }

  return { person, known, load, enter, signIn, signOut, signOutEverywhere };
});
