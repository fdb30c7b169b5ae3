<script setup lang="ts">
import type { TrailAct, TrailLine } from '@jam-ledger/contract';
import Button from 'primevue/button';

defineProps<{
  lines: readonly TrailLine[];
  /** Whether there are earlier ones. */
  more: boolean;
  when: (moment: string) => string;
}>();
const emit = defineEmits<{ earlier: [] }>();

/** Acts after which whom they are about needs another word, or none since it is whoever did it. */
const OWN: readonly TrailAct[] = [
  'came in by a link',
  'signed in on a new device',
  'signed out everywhere',
  'changed a password',
];

function says({ act, by, about, detail }: TrailLine): string {
  const who = by ?? (act === 'erased' || act === 'restored' ? 'The book' : 'Whoever runs the machine');
  const more = detail === '' ? '' : `: ${detail}`;
  if (act === 'erased') return `${who} erased somebody, after the waiting time${more}`;
  if (about === null) return `${who} ${act}${more}`;
  if (about === by) return `${who} ${act}${OWN.includes(act) ? '' : ' of their own'}${more}`;
  if (act === 'asked to erase' || act === 'handed on' || act === 'took back' || act === 'put away')
    return `${who} ${act} ${about}${more}`;
  if (act === 'kept from erasing') return `${who} kept ${about} from being erased`;
  const of = act.startsWith('changed') ? 'of ' : '';
  return `${who} ${act} ${of}${about}${more}`;
}
</script>

<template>
  <section aria-label="Who did what">
    <h2>Who did what</h2>
    <p class="soft">
      Who was invited, handed on, made an owner, archived or erased; backups; passwords, and sign-ins from new devices.
    </p>
    <p v-if="lines.length === 0" class="soft">Nothing yet.</p>
    <ol class="quiet-list">
      <li v-for="line in lines" :key="line.line">
        <span class="soft when">{{ when(line.at) }}</span> <span>{{ says(line) }}</span>
      </li>
    </ol>
    <Button v-if="more" size="small" outlined label="Show earlier" @click="emit('earlier')" />
  </section>
</template>

<style scoped>
section {
  max-width: 60rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.25rem 0;
}
.when {
  min-width: 11rem;
}
</style>
