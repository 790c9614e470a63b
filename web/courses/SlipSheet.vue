<script setup lang="ts">
import { invitation } from '#core/roster';
import type { Slip } from '#contract/joining';
import QRCode from 'qrcode';
import { useClipboard } from '@vueuse/core';
import { ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useSchool } from '../session/school.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** Join slips to be printed and cut apart. Their codes are shown this once. */
const props = defineProps<{ slips: readonly Slip[]; course: string }>();
defineEmits<{ close: [] }>();

const router = useRouter();
const { value: school } = useLoaded(useSchool().load);
const pictures = shallowRef<Record<string, string>>({});

const addressOf = ({ code }: Slip): string =>
  new URL(router.resolve({ name: 'join', params: { code } }).href, location.origin).href;

watch(
  () => props.slips,
  async (slips) => {
    const drawn = await Promise.all(
      slips.map(async (slip) => {
        const svg = await QRCode.toString(addressOf(slip), { type: 'svg', margin: 0 });
        return [slip.person, `data:image/svg+xml,${encodeURIComponent(svg)}`] as const;
      }),
    );
    pictures.value = Object.fromEntries(drawn);
  },
  { immediate: true },
);

/** What can be sent to somebody instead of a slip. */
const inviteOf = (slip: Slip) =>
  invitation({
    ...{ name: slip.name, login: slip.login, until: slip.expiresAt, address: addressOf(slip) },
    ...{ school: school.value?.name ?? '', course: props.course || null },
  });
const mailTo = (slip: Slip): string => {
  const { subject, body } = inviteOf(slip);
  return `mailto:${slip.mail}?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(body)}`;
};
const { copy, isSupported } = useClipboard({ legacy: true });
const copied = ref<string>();

const copyWords = ({ person }: Slip): string => (copied.value === person ? 'Copied' : 'Copy as a message');

async function copyInvitation(slip: Slip): Promise<void> {
  await copy(inviteOf(slip).body);
  copied.value = slip.person;
}

const host = location.host;
const print = (): void => window.print();
</script>

<template>
  <section class="sheet" aria-label="Join slips">
    <div class="bar">
      <p>
        Each works once, until
        {{ new Date(slips[0]!.expiresAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' }) }}. They are
        shown only now; if one is lost, make a new one.
      </p>
      <v-btn variant="flat" color="primary" @click="print">Print</v-btn>
      <v-btn @click="$emit('close')">Done</v-btn>
    </div>
    <ul>
      <li v-for="slip in slips" :key="slip.person" class="slip">
        <img v-if="pictures[slip.person]" :src="pictures[slip.person]" :alt="`Address for ${slip.name}`" />
        <div>
          <p class="name">{{ slip.name }}</p>
          <p class="quiet">{{ school?.name }}, {{ course }}</p>
          <p>
            Go to <strong>{{ host }}/join</strong> and type
          </p>
          <p class="code">{{ slip.code }}</p>
          <p class="quiet">Later you sign in as {{ slip.login }}</p>
          <p class="send">
            <v-btn
              v-if="isSupported"
              size="small"
              :aria-label="`${copyWords(slip)}: ${slip.name}`"
              @click="copyInvitation(slip)"
              >{{ copyWords(slip) }}</v-btn
            >
            <v-btn v-if="slip.mail" size="small" :href="mailTo(slip)" :aria-label="`Write a mail to ${slip.name}`"
              >Write a mail</v-btn
            >
          </p>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 12px;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  list-style: none;
}
.slip {
  display: flex;
  gap: 14px;
  padding: 14px;
  break-inside: avoid;
  color: #000;
  background: #fff;
  border: 1px dashed #888;
  font-size: 13px;
}
img {
  width: 96px;
  height: 96px;
}
.name {
  font-weight: 650;
  font-size: 16px;
}
.code {
  font-size: 19px;
  font-weight: 650;
  letter-spacing: 0.04em;
  font-variant-numeric: tabular-nums;
}
.slip .quiet {
  color: #555;
}
</style>

<style>
@media print {
  main.page > :not(.sheet),
  .sheet .bar,
  .sheet .send {
    display: none !important;
  }
}
</style>
