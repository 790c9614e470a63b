<script setup lang="ts">
import type { RosterReport } from '#contract/roster';
import { computed } from 'vue';

/** A class list line by line, with what comes of each; what there is to see comes first. */
const props = defineProps<{ lines: RosterReport['lines'] }>();

const ORDER = ['refuse', 'add', 'join', 'invite', 'known'];
const ordered = computed(() =>
  props.lines.toSorted((a, b) => ORDER.indexOf(a.fate) - ORDER.indexOf(b.fate) || a.line - b.line),
);

const FATES = {
  ...{ add: 'comes in', join: 'comes in; the school knows them', known: 'is in this course', refuse: '' },
  invite: 'will be invited: has an account already',
};
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
    <table class="listing">
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
        <tr v-for="one in ordered" :key="one.line" :class="one.fate">
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
}
.known td {
  color: var(--quiet);
}
</style>
