<script setup lang="ts">
import type { RosterReport } from '#contract/roster';

/** A class list line by line, with what comes of each. */
defineProps<{ lines: RosterReport['lines'] }>();

const FATES = { add: 'comes in', join: 'comes in; the school knows them', known: 'is in this course', refuse: '' };
const WHY: Record<NonNullable<RosterReport['lines'][number]['why']>, string> = {
  noName: 'there is no name in this line',
  longName: 'the name is too long',
  noMail: 'the mail address is none',
  twice: 'the same stands further up; give both a number or a mail address',
  otherName: 'the school knows this number or address under another name',
  teaches: 'teaches this course',
};
</script>

<template>
  <div class="lines" tabindex="0" role="region" aria-label="The list, line by line">
    <table>
      <thead>
        <tr>
          <th scope="col">Line</th>
          <th scope="col">Name</th>
          <th scope="col">Mail</th>
          <th scope="col">Number</th>
          <th scope="col">What comes of it</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in lines" :key="one.line" :class="one.fate">
          <td class="figures">{{ one.line }}</td>
          <td dir="auto">{{ one.name }}</td>
          <td>{{ one.mail }}</td>
          <td class="figures">{{ one.number }}</td>
          <td>{{ one.why ? WHY[one.why] : FATES[one.fate] }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.lines {
  max-height: 340px;
  margin-top: 8px;
  overflow-y: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
th,
td {
  padding: 3px 10px 3px 0;
  text-align: start;
  border-bottom: 1px solid var(--hairline);
}
.refuse td:last-child {
  color: rgb(var(--v-theme-error));
}
.known td {
  color: var(--quiet);
}
</style>
