import {
  mdiAccountGroupOutline,
  mdiBellOutline,
  mdiBookmarkMultipleOutline,
  mdiBookOpenPageVariantOutline,
  mdiChartBoxOutline,
  mdiEmailOutline,
  mdiInboxOutline,
  mdiLockOutline,
  mdiLogout,
  mdiMagnify,
  mdiSchoolOutline,
  mdiTuneVariant,
} from '@mdi/js';
import { storeToRefs } from 'pinia';
import { computed, type ComputedRef, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { useCourses } from '../session/courses.ts';
import { useNews } from '../session/news.ts';
import { useSession } from '../session/session.ts';
import type { MenuEntry } from './menu-entry.ts';

export interface Shell {
  name: ComputedRef<string | undefined>;
  /** Where everybody goes. */
  places: ComputedRef<MenuEntry[]>;
  courses: ComputedRef<MenuEntry[]>;
  /** How many notices there are that have not been seen. */
  unseen: Ref<number>;
  /** What stands under the person's name. */
  own: ComputedRef<MenuEntry[]>;
}

/** All that the head of a page leads to. A new place is one more line here. */
export function useShell(): Shell {
  const session = useSession();
  const router = useRouter();
  const store = useCourses();
  const { courses } = storeToRefs(store);
  const person = computed(() => session.person);
  const news = useNews();
  const { unseen } = storeToRefs(news);
  void store.ensure();
  void news.ensure();

  async function signOut(): Promise<void> {
    await session.signOut();
    await router.push({ name: 'sign-in' });
  }

  return {
    unseen,
    name: computed(() => person.value?.name),
    places: computed(() => [
      { title: person.value?.teaches ? 'What waits' : 'Your work', icon: mdiInboxOutline, to: { name: 'home' } },
      ...(person.value?.teaches
        ? [{ title: 'Remark bank', icon: mdiBookmarkMultipleOutline, to: { name: 'bank' } }]
        : []),
      { title: 'Find remarks', icon: mdiMagnify, to: { name: 'search' } },
      ...(person.value?.learns ? [{ title: 'Your grades', icon: mdiChartBoxOutline, to: { name: 'grades' } }] : []),
    ]),
    courses: computed(() =>
      courses.value.map(({ id, title, aside }) => ({
        ...(aside && { subtitle: 'put aside' }),
        title,
        icon: mdiBookOpenPageVariantOutline,
        to: { name: 'course', params: { course: id } },
      })),
    ),
    own: computed(() => [
      ...(person.value?.teaches ? [{ title: 'Voice and words', icon: mdiTuneVariant, to: { name: 'speech' } }] : []),
      ...(session.steward
        ? [
            { title: 'People of the school', icon: mdiAccountGroupOutline, to: { name: 'people' } },
            { title: 'Mail of the school', icon: mdiEmailOutline, to: { name: 'mail' } },
            { title: 'Learning platforms', icon: mdiSchoolOutline, to: { name: 'platforms' } },
          ]
        : []),
      {
        title: 'Notices',
        ...(unseen.value > 0 && { subtitle: `${unseen.value} new` }),
        icon: mdiBellOutline,
        to: { name: 'notices' },
      },
      { title: 'Password and data', icon: mdiLockOutline, to: { name: 'password' } },
      { title: 'Sign out', icon: mdiLogout, run: () => void signOut() },
    ]),
  };
}
