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
  const steward = ref(false);

  function take(session: endpoints.Session): void {
    person.value = session.person;
    steward.value = session.steward === true;
    known.value = true;
  }

  async function load(): Promise<void> {
    take(await call(endpoints.readSession));
  }

  async function signIn(credentials: SignIn): Promise<void> {
    take(await call(endpoints.signIn, { body: credentials }));
  }

  /** Somebody has just come in another way. */
  async function enter(someone: Person | null): Promise<void> {
    take({ person: someone });
    // Whoever opened the school looks after it.
    await load().catch(() => undefined);
  }

  async function signOut(): Promise<void> {
    await call(endpoints.signOut);
    person.value = null;
  }

  async function signOutEverywhere(): Promise<void> {
    await call(endpoints.signOutEverywhere);
    person.value = null;
  }

  return { person, known, steward, load, enter, signIn, signOut, signOutEverywhere };
});
