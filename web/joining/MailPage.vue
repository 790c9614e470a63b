<script setup lang="ts">
import { readMails, type SentMail } from '#contract/mail';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';

/** For the school's steward: what went out by mail, and what did not. */
const { value, error, load } = useLoaded(() => call(readMails));

const stateOf = ({ sentAt, tryAt, refused }: SentMail): string =>
  sentAt
    ? `sent ${dayAndTime(sentAt)}`
    : tryAt && refused
      ? `not taken yet, next try ${dayAndTime(tryAt)}`
      : tryAt
        ? 'on its way'
        : 'not taken';
</script>

<template>
  <PageFrame title="Mail of the school">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p v-if="value.standIn" class="quiet">
        This server has no mail server to send by, so messages are kept here instead of going out. Whoever runs it can
        set one; the README says how.
      </p>
      <StateNote v-if="value.mails.length === 0">Nothing has been sent yet.</StateNote>
      <v-table v-else class="mails">
        <thead>
          <tr>
            <th scope="col">To</th>
            <th scope="col">About</th>
            <th scope="col">Written</th>
            <th scope="col">State</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="mail in value.mails" :key="mail.id">
            <th scope="row">{{ mail.address }}</th>
            <td>{{ mail.subject }}</td>
            <td class="figures">{{ dayAndTime(mail.madeAt) }}</td>
            <td>
              {{ stateOf(mail) }} <span v-if="mail.refused && !mail.sentAt" class="quiet">{{ mail.refused }}</span>
            </td>
          </tr>
        </tbody>
      </v-table>
      <section v-if="value.standIn && value.standIn.length > 0" aria-labelledby="kept">
        <h2 id="kept">As they would have gone out</h2>
        <details v-for="(message, index) in value.standIn" :key="index">
          <summary>{{ /^Subject: (.*)$/m.exec(message)?.[1] ?? 'A message' }}</summary>
          <pre>{{ message }}</pre>
        </details>
      </section>
    </template>
  </PageFrame>
</template>

<style scoped>
.mails {
  background: transparent;
}
th {
  font-weight: 500;
  text-align: start;
}
h2 {
  margin: 24px 0 8px;
}
pre {
  padding: 12px;
  overflow-x: auto;
  background: var(--paper);
  border: 1px solid var(--hairline);
  white-space: pre-wrap;
}
.quiet {
  max-width: 68ch;
}
</style>
