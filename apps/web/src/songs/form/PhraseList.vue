<script setup lang="ts">
import type { Phrase, Section } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { sayPass } from './formStrip.ts';
import { clockText, LineButton } from '../../ui/index.ts';

const props = defineProps<{ section: Section; chosen: string | undefined; assigned: ReadonlySet<string> }>();
const emit = defineEmits<{
  choose: [id: string];
  add: [];
  strike: [phrase: Phrase];
  edit: [];
  again: [];
  strikeSection: [];
}>();

function remarksOn({ id, status, certainty, refersTo, chosen: isPlayed }: Phrase): string {
  const remarks = [
    props.assigned.has(id) && 'assigned',
    status !== 'draft' && status,
    certainty !== 'heard' && certainty,
    refersTo !== null && 'refers',
    !isPlayed && 'kept beside',
  ];
  return remarks.filter(Boolean).join(', ');
}

const facts = computed(() => {
  const { startSeconds, startKnown, bars, barsKnown, times, open, tuning, capo } = props.section;
  const often = times > 1 || open ? `, ${open ? 'about ' : ''}${times} times` : '';
  const from = startKnown ? `from ${clockText(startSeconds)}` : 'start not stamped';
  const long = barsKnown ? `${bars} ${bars === 1 ? 'bar' : 'bars'}` : 'as long as its phrases';
  const guitar = [tuning, capo === null ? null : `capo ${capo === 0 ? 'none' : capo}`].filter((one) => one !== null);
  return [from, `${long}${often}`, ...guitar].join(', ');
});
</script>

<template>
  <section :aria-label="`Section ${section.label}`">
    <h2>
      {{ section.label }} <span class="soft role">{{ section.role }}</span>
    </h2>
    <p class="soft">{{ facts }}</p>
    <p v-for="(pass, index) in section.passes" :key="index" class="soft pass">
      {{ sayPass(pass) }}
    </p>
    <ol class="quiet-list phrases">
      <li
        v-for="phrase in section.phrases"
        :key="phrase.id"
        :class="{ chosen: phrase.id === chosen, beside: !phrase.chosen }"
      >
        <LineButton class="open" @click="emit('choose', phrase.id)">
          {{ phrase.name }}
          <span v-if="remarksOn(phrase)" class="soft given">{{ remarksOn(phrase) }}</span>
        </LineButton>
        <LineButton
          class="strike"
          :aria-label="`Strike out ${phrase.name}`"
          title="Strike out"
          @click="emit('strike', phrase)"
        >
          <i class="pi pi-times"></i>
        </LineButton>
      </li>
    </ol>
    <p v-if="section.phrases.length === 0" class="soft">No phrase yet.</p>
    <Button
      class="add-phrase"
      size="small"
      label="Add a phrase"
      title="Alt-n"
      icon="pi pi-plus"
      outlined
      @click="emit('add')"
    />
    <div class="section-tools">
      <Button size="small" text label="Change section" @click="emit('edit')" />
      <Button size="small" text label="This section again" title="Alt-g" @click="emit('again')" />
      <Button size="small" text severity="secondary" label="Strike out" @click="emit('strikeSection')" />
    </div>
  </section>
</template>

<style scoped>
.role {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.95rem;
}
.phrases {
  margin: 0.5rem 0;
}
.phrases li {
  display: flex;
  border-bottom: 1px solid var(--rule);
}
.phrases li.chosen {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
}
.open,
.strike {
  padding: 0.35rem 0.4rem;
}
.open {
  flex: 1;
  min-width: 0;
}
.strike {
  color: var(--ink-soft);
  font-size: 0.8rem;
}
.given {
  font-size: 0.82rem;
  font-style: italic;
}
.beside .open {
  padding-left: 1.4rem;
  color: var(--ink-soft);
}
.pass {
  font-style: italic;
  font-size: 0.88rem;
}
.section-tools {
  margin: 0.3rem 0 0 -0.5rem;
}
</style>
