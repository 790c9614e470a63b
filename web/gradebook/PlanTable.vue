<script setup lang="ts">
/** What would come in, line by line: what is refused first. */
interface Line {
  /** Where several files come together. */
  file?: string;
  line: number;
  what: string;
  from: string;
  to: string;
  fate: 'new' | 'changed' | 'unchanged' | 'refused';
  why?: string | undefined;
}

defineProps<{
  lines: readonly Line[];
  /** How many there are. */
  count: number;
}>();

const toWords = ({ fate, to }: Line): string =>
  fate === 'refused' ? 'not taken' : fate === 'unchanged' ? 'as it is' : to;
</script>

<template>
  <table class="listing">
    <thead>
      <tr>
        <th scope="col">Line</th>
        <th scope="col">What</th>
        <th scope="col">Now</th>
        <th scope="col">Then</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(line, index) in lines" :key="index" :class="line.fate">
        <td class="figures">
          {{ line.line }}<span v-if="line.file" class="file">{{ line.file }}</span>
        </td>
        <td>
          {{ line.what }}
          <span v-if="line.why" class="why">{{ line.why }}</span>
        </td>
        <td class="figures">{{ line.from }}</td>
        <td class="figures becomes">{{ toWords(line) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="count > lines.length" class="quiet">and {{ count - lines.length }} more.</p>
</template>

<style scoped>
table {
  width: 100%;
  font-size: 13px;
}
.changed td:last-child,
.new td:last-child {
  font-weight: 650;
}
.refused .becomes {
  white-space: nowrap;
}
.unchanged {
  color: var(--quiet);
}
.why,
.file {
  display: block;
}
.why {
  color: rgb(var(--v-theme-error));
}
.file {
  color: var(--quiet);
}
.file,
.quiet {
  font-size: 12px;
}
</style>
