<script setup lang="ts">
import type { Outcome, SentTake } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref, useId } from 'vue';
import { useNotices } from '../session/index.ts';
import { dayText, momentText } from '../ui/index.ts';
import { useSentTakes } from './sentTakes.ts';

/** The takes of a piece that were sent: for whoever played them, and with `ink` for the teacher, who hears, answers and inks them. */
const props = defineProps<{
  zone: string;
  ink?: (bpm: number, outcome: Outcome) => Promise<void>;
}>();

const store = useSentTakes();
const notices = useNotices();
const id = useId();
const answers = ref<Readonly<Record<string, string>>>({});

const words = (take: SentTake): string => answers.value[take.id] ?? take.answer;

function answer(take: SentTake): Promise<void> {
  return notices.tell(async () => {
    await store.answer(take, words(take).trim());
    notices.say('The answer is sent.');
  });
}

function remove(take: SentTake): Promise<void> {
  return notices.tell(async () => {
    await store.remove(take);
    notices.say('The take is deleted from the studio.');
  });
}

/** The take counts as it came out. */
function inkIt({ bpm, isClean }: SentTake): Promise<void> {
  return notices.tell(async () => props.ink?.(bpm, isClean ? 'clean' : 'not-yet'));
}
</script>

<template>
  <section v-if="store.sent.length > 0" class="sent" :aria-labelledby="`${id}-title`">
    <h3 :id="`${id}-title`">{{ ink ? 'Takes that were sent' : 'Sent to the teacher' }}</h3>
    <ul>
      <li v-for="take in store.sent" :key="take.id">
        <p>
          {{ momentText(take.playedAt, zone) }}, {{ take.bpm }} bpm:
          {{ take.isClean ? 'clean' : take.came || 'not yet' }}
          <span v-if="!take.isKept" class="soft">Its sound is still on its way.</span>
        </p>
        <audio
          v-if="take.isKept"
          controls
          preload="none"
          :src="store.addressOf(take)"
          :aria-label="`The take of ${momentText(take.playedAt, zone)}`"
        />
        <p v-if="!ink && take.answer" class="answer">{{ take.answer }}</p>
        <form v-if="ink" @submit.prevent="answer(take)">
          <InputText
            size="small"
            :model-value="words(take)"
            :aria-label="`Answer to the take of ${momentText(take.playedAt, zone)}`"
            placeholder="what to say of it"
            maxlength="500"
            @update:model-value="answers = { ...answers, [take.id]: $event ?? '' }"
          />
          <Button size="small" type="submit" text label="Answer" :disabled="words(take).trim() === take.answer" />
          <Button size="small" outlined :label="`Ink it at ${take.bpm}`" @click="inkIt(take)" />
        </form>
        <Button
          size="small"
          text
          severity="secondary"
          label="Delete from the studio"
          :aria-label="`Delete the take of ${momentText(take.playedAt, zone)} from the studio`"
          @click="remove(take)"
        />
        <span class="soft">It goes by itself on {{ dayText(take.goesOn, 'long') }}.</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-left: 2px solid var(--cool);
  padding-left: 0.7rem;
  margin-bottom: 0.6rem;
}
p {
  margin: 0 0 0.3rem;
}
audio {
  width: 100%;
  max-width: 28rem;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
form :deep(input) {
  flex: 1;
  min-width: 12rem;
}
.answer {
  font-weight: 600;
}
</style>
