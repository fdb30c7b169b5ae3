<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, nextTick, onMounted, reactive, ref } from 'vue';
import { useRoute } from 'vue-router';
import { useNotices } from '../session/index.ts';
import { useListening } from '../sound/index.ts';
import { TabPage, useReading } from '../tab/index.ts';
import { FieldRow } from '../ui/index.ts';
import { ruleOf, SHORTHAND_RULES } from './shorthandRules.ts';
import { isSameLine, SHORTHAND_STEPS } from './shorthandSteps.ts';

const route = useRoute();
const notices = useNotices();
const at = ref(0);
const typed = reactive(SHORTHAND_STEPS.map(({ begun = '' }) => begun));
const step = computed(() => SHORTHAND_STEPS[at.value] ?? SHORTHAND_STEPS[0]);
const text = computed({
  get: () => typed[at.value] ?? '',
  set: (line) => (typed[at.value] = line),
});
const { reading, bars, tuning } = useReading(text, { tuning: 'standard', meter: '4/4' });
const isRight = computed(() => step.value !== undefined && isSameLine(text.value, step.value.answer));
const problem = computed(() => (text.value === '' ? undefined : reading.value.problems[0]?.message));
/** Quarter notes a minute. Our choice. */
const BPM = 80;
const listening = useListening(
  () => ({ phrase: reading.value.phrase, tuning: tuning.value, capo: 0, offsetCents: 0, feel: 'straight', bpm: BPM }),
  false,
);

function go(to: number): void {
  listening.player.stop();
  at.value = Math.min(SHORTHAND_STEPS.length - 1, Math.max(0, to));
  void nextTick(() => document.getElementById('line')?.focus());
}

/** The rule that was asked for. */
const asked = computed(() => ruleOf(route.query['rule']));
onMounted(() => {
  if (asked.value) document.getElementById(`rule-${String(route.query['rule'])}`)?.scrollIntoView();
});
</script>

<template>
  <h1>The shorthand in five minutes</h1>
  <form v-if="step" class="lesson" @submit.prevent="isRight && go(at + 1)">
    <h2>{{ at + 1 }} of {{ SHORTHAND_STEPS.length }}: {{ step.title }}</h2>
    <p>{{ step.says }}</p>
    <p>
      <strong>{{ step.task }}</strong>
    </p>
    <FieldRow v-slot="{ invalid }" label="Your line" :problem="problem">
      <InputText
        id="line"
        v-model="text"
        class="line"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        aria-label="Your line"
        :invalid="invalid"
      />
    </FieldRow>
    <TabPage :bars="bars" :strings="6" :playing="listening.playing.value">The tab follows as you type.</TabPage>
    <p class="acts">
      <Button
        type="button"
        size="small"
        outlined
        :label="listening.player.playing.value ? 'Stop' : 'Hear it'"
        :disabled="bars.length === 0"
        @click="listening.player.playing.value ? listening.player.stop() : notices.tell(() => listening.start({}))"
      />
      <Button type="button" size="small" text label="Show me" @click="text = step.answer" />
      <Button v-if="at > 0" type="button" size="small" text label="Back" @click="go(at - 1)" />
      <Button v-if="at < SHORTHAND_STEPS.length - 1" type="submit" size="small" label="Next" :disabled="!isRight" />
    </p>
    <p v-if="isRight" class="right" role="status">
      {{
        at < SHORTHAND_STEPS.length - 1
          ? 'That is it. Press Enter for the next.'
          : 'That is it. You know the shorthand.'
      }}
    </p>
  </form>
  <h2 id="rules">The rule behind every remark</h2>
  <dl class="rules">
    <div
      v-for="(rule, code) in SHORTHAND_RULES"
      :id="`rule-${code}`"
      :key="code"
      :class="{ asked: route.query['rule'] === code }"
    >
      <dt>{{ rule.says }}</dt>
      <dd>
        <span
          >not <code>{{ rule.wrong }}</code></span
        >
        <span
          >but <code>{{ rule.right }}</code></span
        >
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.lesson {
  display: grid;
  gap: 0.7rem;
  max-width: 46rem;
  margin-bottom: 2rem;
}
.line {
  font-family: var(--type-mono);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.right {
  border-left: 3px solid var(--cool);
  padding-left: 0.7rem;
}
.rules {
  max-width: 60rem;
}
.rules > div {
  border-left: 2px solid transparent;
  border-bottom: 1px solid var(--rule);
  padding: 0.4rem 0.7rem;
  scroll-margin-top: 30vh;
}
.rules > .asked {
  border-left-color: var(--warm);
  background: var(--warm-wash);
}
dd {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
}
</style>
