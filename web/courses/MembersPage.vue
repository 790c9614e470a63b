<script setup lang="ts">
import { readCourse } from '#contract/courses';
import { endCourseCode, makeCourseCode, makeSlips, type Slip } from '#contract/joining';
import { changeMember, readMembers, setLeft, takeOut, type Member } from '#contract/roster';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted, dayAndTime } from '../wording/format.ts';
import InviteTeacher from './InviteTeacher.vue';
import MemberRow from './MemberRow.vue';
import MergeForm from './MergeForm.vue';
import RosterForm from './RosterForm.vue';
import SlipSheet from './SlipSheet.vue';

/** Who teaches and who learns in a course, and how they come in. */
const props = defineProps<{ course: string }>();

const router = useRouter();
const { value, error, load } = useLoaded(
  () =>
    Promise.all([
      call(readMembers, { params: { course: props.course } }),
      call(readCourse, { params: { course: props.course } }),
    ]),
  () => props.course,
);
const members = computed(() => value.value?.[0].members ?? []);
const title = computed(() => value.value?.[1].title ?? '');
const invited = computed(() => value.value?.[0].invited ?? []);
const codeUntil = computed(() => value.value?.[0].codeUntil ?? null);
const students = computed(() => members.value.filter(({ teaches }) => !teaches));
const teachers = computed(() => members.value.filter(({ teaches }) => teaches));
const outside = computed(() => students.value.filter(({ cameInAt, left }) => cameInAt === null && !left));
const slips = shallowRef<Slip[]>();
const twice = shallowRef<Member>();
const told = ref<string>();
const mails = computed(() => value.value?.[0].mails ?? false);
const withMail = computed(() => outside.value.filter(({ mail }) => mail !== ''));
const address = ref<string>();
const { problem, attempt } = useDeed();

const slipsFor = (people: readonly Member[], byMail = false): Promise<boolean> =>
  attempt(async () => {
    const made = await call(makeSlips, {
      params: { course: props.course },
      body: { people: people.map(({ id }) => id), byMail },
    });
    if (made.mailed > 0) told.value = `${counted(made.mailed, 'invitation is', 'invitations are')} on the way.`;
    if (made.slips.length === 0) return;
    slips.value = made.slips;
    window.scrollTo(0, 0);
  });

async function merged(kept: Member): Promise<void> {
  told.value = `${kept.name} is there once now, with ${counted(kept.works, 'work')}.`;
  twice.value = undefined;
  await load();
}

const makeCode = (): Promise<boolean> =>
  attempt(async () => {
    const { code } = await call(makeCourseCode, { params: { course: props.course } });
    address.value = new URL(router.resolve({ name: 'join', params: { code } }).href, location.origin).href;
    await load();
  });

const endCode = (): Promise<boolean> =>
  attempt(async () => {
    await call(endCourseCode, { params: { course: props.course } });
    address.value = undefined;
    await load();
  });

const change = (member: Member, body: { name?: string; mail?: string; number?: string }): Promise<boolean> =>
  attempt(async () => {
    await call(changeMember, { params: { course: props.course, person: member.id }, body });
    await load();
  });

const leave = (member: Member, left: boolean): Promise<boolean> =>
  attempt(async () => {
    await call(setLeft, { params: { course: props.course, person: member.id }, body: { left } });
    await load();
  });

const remove = ({ id }: { id: string }): Promise<boolean> =>
  attempt(async () => {
    await call(takeOut, { params: { course: props.course }, body: { people: [id] } });
    await load();
  });
</script>

<template>
  <PageFrame :title="title ? `People of ${title}` : 'People'">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <SlipSheet v-else-if="slips" :slips="slips" :course="title" class="sheet" @close="slips = undefined" />
    <template v-else>
      <p>
        <router-link :to="{ name: 'course', params: { course } }">{{ title }}</router-link>
      </p>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <section aria-labelledby="students">
        <h2 id="students">
          Students <span class="figures quiet">{{ students.length }}</span>
        </h2>
        <div v-if="outside.length > 0" class="row">
          <p>{{ counted(outside.length, 'student has', 'students have') }} not come in yet.</p>
          <v-btn variant="outlined" @click="slipsFor(outside)">Make their join slips</v-btn>
          <v-btn v-if="mails && withMail.length > 0" variant="outlined" @click="slipsFor(withMail, true)"
            >Invite {{ withMail.length }} by mail</v-btn
          >
        </div>
        <p v-if="told" role="status">{{ told }}</p>
        <MergeForm
          v-if="twice"
          :key="twice.id"
          :course="course"
          :member="twice"
          :others="students.filter(({ id }) => id !== twice!.id)"
          @done="merged"
          @close="twice = undefined"
        />
        <v-table v-if="students.length > 0" class="people">
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col">Signs in as</th>
              <th scope="col">Mail</th>
              <th scope="col">Number</th>
              <th scope="col">Came in</th>
              <th scope="col"><span class="visually-hidden">What can be done</span></th>
            </tr>
          </thead>
          <tbody>
            <MemberRow
              v-for="student in students"
              :key="student.id"
              :member="student"
              @change="change(student, $event)"
              @slip="slipsFor([student])"
              @remove="remove(student)"
              @leave="leave(student, $event)"
              @twice="twice = student"
            />
          </tbody>
        </v-table>
        <div v-if="invited.length > 0" class="invited">
          <h3>Invited</h3>
          <p class="quiet">These people have an account already. They join when they accept the invitation.</p>
          <ul class="teachers">
            <li v-for="one in invited" :key="one.id">
              {{ one.name }} <span v-if="one.teaches" class="quiet">as a teacher</span>
              <span class="quiet">since {{ dayAndTime(one.madeAt) }}</span>
              <v-btn size="small" :aria-label="`Withdraw invitation: ${one.name}`" @click="remove(one)"
                >Withdraw invitation</v-btn
              >
            </li>
          </ul>
        </div>
        <RosterForm :course="course" @changed="load" />
      </section>
      <section aria-labelledby="code">
        <h2 id="code">One code for all</h2>
        <p class="quiet">
          Instead of slips: with this address students come in by themselves, under their own names. Whoever is not on
          your list is added to it, so end it when all are in.
        </p>
        <p v-if="address" class="row">
          <span
            >Read it out or send it now; it is shown only this once: <strong>{{ address }}</strong></span
          >
        </p>
        <p v-if="codeUntil" class="quiet">There is one until {{ dayAndTime(codeUntil) }}.</p>
        <div class="row">
          <v-btn variant="outlined" @click="makeCode">{{ codeUntil ? 'Make a new one' : 'Make one' }}</v-btn>
          <v-btn v-if="codeUntil" @click="endCode">End it</v-btn>
        </div>
      </section>
      <section aria-labelledby="teachers">
        <h2 id="teachers">Teachers</h2>
        <ul class="teachers">
          <li v-for="teacher in teachers" :key="teacher.id">
            {{ teacher.name }}
            <template v-if="!teacher.cameInAt">
              <span class="quiet">has not come in yet</span>
              <v-btn size="small" @click="slipsFor([teacher])">Make a slip</v-btn>
            </template>
          </li>
        </ul>
        <InviteTeacher
          :course="course"
          @slip="slips = [$event]"
          @mailed="told = `${$event} gets an invitation by mail.`"
          @invited="told = `${$event} has an account and finds the invitation after signing in.`"
          @changed="load"
        />
      </section>
    </template>
  </PageFrame>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 {
  margin-bottom: 8px;
}
h3 {
  font-size: 15px;
  font-weight: 650;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 8px 0;
}
.people {
  margin-bottom: 20px;
  background: transparent;
}
.teachers {
  margin-bottom: 10px;
  list-style: none;
}
.quiet {
  max-width: 68ch;
}
</style>
