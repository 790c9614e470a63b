import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { Person } from '#contract/basics';
import * as endpoints from '#contract/session';
import type { SignIn } from '#contract/session';
import { forgetAllKept } from '../offline/kept.ts';
import { ownZone } from '../wording/local-time.ts';
import { call } from './api.ts';
import { isOther, speakFor, tellOther } from './speaker.ts';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const person = ref<Person | null>(null);
  const known = ref(false);
  const steward = ref(false);

  /** Whose things are kept in this browser. */
  const keptFor = useLocalStorage<string | null>('kept-for', null);

  function take(session: endpoints.Session): void {
    if (session.person?.id !== keptFor.value) {
      void forgetAllKept();
      keptFor.value = session.person?.id ?? null;
    }
    // A page that has spoken for somebody does not speak for anybody else.
    if (session.person && !speakFor(session.person.id)) return tellOther();
    person.value = session.person;
    steward.value = session.steward === true;
    known.value = true;
    if (session.person && session.zone !== undefined && session.zone !== ownZone())
      call(endpoints.setZone, { body: { zone: ownZone() } }).catch(() => undefined);
  }

  /** Somebody else is signed in in this browser now; other tabs tell by what is kept. */
  const other = computed(
    () => isOther.value || (person.value !== null && keptFor.value !== null && keptFor.value !== person.value.id),
  );
  watch(keptFor, (now) => {
    if (now === person.value?.id) isOther.value = false;
  });

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
    take({ person: null });
  }

  async function signOutEverywhere(): Promise<void> {
    await call(endpoints.signOutEverywhere);
    take({ person: null });
  }

  return { person, known, steward, other, load, enter, signIn, signOut, signOutEverywhere };
});
