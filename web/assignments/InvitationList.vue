<script setup lang="ts">
import { answerInvitation, readInvitations, type Invitation } from '#contract/roster';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import { useSession } from '../session/session.ts';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** Courses that somebody has been invited to. Nobody is put into a course who has an account already. */
const { value } = useLoaded(() => call(readInvitations));
const { busy, problem, attempt } = useDeed();
const session = useSession();
const courses = useCourses();

const answer = ({ course }: Invitation, accept: boolean): Promise<boolean> =>
  attempt(async () => {
    value.value = await call(answerInvitation, { params: { invitation: course }, body: { accept } });
    if (!accept) return;
    await session.load();
    await courses.refresh();
  });
</script>

<template>
  <section v-if="value?.invitations.length" class="invitations" aria-label="Invitations">
    <div v-for="one in value.invitations" :key="one.course" class="row">
      <p>
        {{ one.invitedBy ?? 'A teacher' }} invites you to {{ one.teaches ? 'teach' : 'join' }}
        <strong>{{ one.title }}</strong>.
      </p>
      <v-btn
        size="small"
        variant="flat"
        color="primary"
        :disabled="busy"
        :aria-label="`Accept: ${one.title}`"
        @click="answer(one, true)"
        >Accept</v-btn
      >
      <v-btn size="small" :disabled="busy" :aria-label="`Decline: ${one.title}`" @click="answer(one, false)"
        >Decline</v-btn
      >
    </div>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.invitations {
  margin-bottom: 20px;
  padding: 10px 14px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
.row p {
  margin-inline-end: auto;
}
</style>
