<script setup lang="ts">
import type { PlanChange } from '@jam-ledger/core/pieces';
import { useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import ProgressBar from 'primevue/progressbar';
import { computed, onMounted } from 'vue';
import { onBeforeRouteLeave, RouterLink, useRoute } from 'vue-router';
import { useNotices, usePage, usePageAbout } from '../session/index.ts';
import type { PlanMaking } from './planEdits.ts';
import { laneOf } from './planLane.ts';
import { useCutting } from './useCutting.ts';
import { StruckButton } from '../struck/index.ts';
import { usePlan } from './usePlan.ts';
import { usePlanActions } from './usePlanActions.ts';
import { usePlanKeys } from './usePlanKeys.ts';
import { usePlanLessons } from './usePlanLessons.ts';
import LessonLoads from './LessonLoads.vue';
import LessonMoves from './LessonMoves.vue';
import PlanDetail from './PlanDetail.vue';
import PlanSettings from './PlanSettings.vue';
import PlanTable from './PlanTable.vue';
import { useSong } from '../songs/index.ts';

const page = usePage();
const route = useRoute();
const songId = String(route.params['id']);
const store = useSong();
const notices = useNotices();
const { phrases, done, all, compute } = useCutting();
const edited = usePlan(songId, phrases);
const { plan, pieces, given, saving, undone, stateOf, nameOf, load, change, undo, keep, give } = edited;
const song = computed(() => store.song);
const lane = computed(() => laneOf(phrases.value));
const making = computed((): PlanMaking => ({
  phrases: phrases.value,
  targetPercent: plan.value?.targetPercent ?? 100,
  shown: song.value?.student.shown ?? [],
  newId: () => crypto.randomUUID(),
}));
const learning = computed(() => plan.value?.learning ?? song.value?.student.schools.learning ?? 'front to back');
const raising = computed(() => plan.value?.raising ?? song.value?.student.schools.raising ?? 'small even steps');

const lessons = usePlanLessons({
  studentId: () => song.value?.student.id,
  plan: { pieces, given, stateOf, nameOf, change, undo },
});
const { days, considered, planned, progress, isStopped, stop, beginOn, loadLessons, acceptAll, beginIn } = lessons;
const needs = computed(() => considered.value.needs);
const replanned = computed(() => considered.value.replanned);
/** So many proposals are shown; the next come when these are done. Our choice. */
const MAX_PROPOSALS = 12;
const nameOfId = (id: string) => {
  const piece = pieces.value.find((one) => one.id === id);
  return piece ? nameOf(piece) : '';
};

usePageAbout(() => song.value?.title);
onMounted(() =>
  page.open(async () => {
    await Promise.all([store.load(songId), load()]);
    await loadLessons();
    if (song.value) await compute(song.value);
  }),
);
onBeforeRouteLeave(async () => {
  await keep();
});
useEventListener(window, 'beforeunload', (event) => {
  if (saving.value !== 'kept') event.preventDefault();
});

const actions = usePlanActions({ plan: edited, lessons, making, learning });
const { chosenId, chosen, seam, proposeAnew, settle, amend, remove, cut, move, moveSeam, accept } = actions;
usePlanKeys(edited, actions);

const named = (ids: readonly string[]) =>
  pieces.value.filter(({ id }) => ids.includes(id)).map((piece) => ({ id: piece.id, name: nameOf(piece) }));
const waiting = computed(() =>
  pieces.value.filter(({ id }) => needs.value.get(id)?.includes(chosen.value?.id ?? '')).map(({ id }) => id),
);

const ACCEPT: Readonly<Record<PlanChange['what'], string>> = {
  later: 'Move it',
  give: 'Assign it',
  drop: 'Take it out',
  halve: 'Split in two',
};
</script>

<template>
  <template v-if="song && plan">
    <header class="head">
      <h1>Pieces</h1>
      <p>
        <RouterLink :to="{ name: 'song', params: { id: song.id } }">{{ song.title }}</RouterLink> for
        <RouterLink :to="{ name: 'ledger', params: { studentId: song.student.id } }">{{
          song.student.name
        }}</RouterLink>
      </p>
      <p class="soft" role="status">
        {{ saving === 'kept' ? 'Saved.' : saving === 'keeping' ? 'Saving…' : 'Not saved yet.' }}
      </p>
      <StruckButton :query="{ songId: song.id }" :kinds="['piece']" @back="notices.tell(load)" />
      <Button size="small" text label="Undo" title="Ctrl+Z" :disabled="undone.length === 0" @click="undo" />
    </header>
    <PlanSettings :plan="plan" :schools="song.student.schools" @change="settle" />
    <p v-if="done < all" class="soft" role="status">Working out how hard the phrases are: {{ done }} of {{ all }} …</p>
    <p v-else-if="phrases.length === 0" class="soft">
      No phrase of this song is written yet; write one on the song desk, then it can be cut into pieces.
    </p>
    <p v-else class="propose">
      <Button
        size="small"
        :outlined="pieces.length > 0"
        :label="pieces.length > 0 ? 'Propose again' : 'Propose the pieces'"
        @click="proposeAnew"
      />
      <span class="soft">
        <kbd>↑</kbd> <kbd>↓</kbd> choose · <kbd>Alt</kbd> with them, or drag: move · <kbd>g</kbd> give ·
        <kbd>h</kbd> halve · <kbd>d</kbd> hard spot · <kbd>j</kbd> join · <kbd>t</kbd> from the top ·
        <kbd>Delete</kbd> out
      </span>
    </p>
    <p v-if="progress" class="propose" role="status">
      {{ progress.what }}<template v-if="progress.of > 0">: {{ progress.done }} of {{ progress.of }}</template> …
      <ProgressBar
        class="bar"
        :mode="progress.of > 0 ? 'determinate' : 'indeterminate'"
        :value="progress.of > 0 ? Math.round((100 * progress.done) / progress.of) : 0"
        :show-value="false"
        :aria-label="progress.what"
      />
      <Button size="small" text label="Stop" @click="stop" />
    </p>
    <p v-else-if="isStopped" class="soft" role="status">Stopped; lessons and proposals are those of the plan before.</p>
    <LessonLoads
      v-if="phrases.length > 0"
      :loads="planned?.loads"
      :lessons="days.length"
      :left="(planned?.left ?? []).map(nameOfId)"
    />
    <LessonMoves
      v-if="planned"
      :moves="planned.moves"
      :name-of="nameOfId"
      @accept="acceptAll"
      @choose="chosenId = $event"
    />
    <section v-if="replanned.changes.length > 0" class="changes" aria-label="What the plan proposes">
      <ul class="quiet-list">
        <li v-for="one in replanned.changes.slice(0, MAX_PROPOSALS)" :key="`${one.what} ${one.id}`">
          <span>{{ one.why }}</span>
          <Button size="small" text :label="ACCEPT[one.what]" @click="accept(one)" />
        </li>
        <li v-if="replanned.changes.length > MAX_PROPOSALS" class="soft">
          {{ replanned.changes.length - MAX_PROPOSALS }} more after these.
        </li>
      </ul>
    </section>
    <div v-if="phrases.length > 0 && chosen" class="columns">
      <PlanTable
        :pieces="pieces"
        :lane="lane"
        :needs="needs"
        :name-of="nameOf"
        :state-of="stateOf"
        :chosen="chosen.id"
        :begin-on="beginOn"
        @choose="chosenId = $event"
        @move="move"
      />
      <PlanDetail
        :piece="chosen"
        :name="nameOf(chosen)"
        :state="stateOf(chosen.id)"
        :needs="named(needs.get(chosen.id) ?? [])"
        :waiting="named(waiting)"
        :raising="raising"
        :rules="plan.rules"
        :lessons="days"
        :seam="seam"
        @begin="beginIn(chosen.id, $event)"
        @tempo="amend(chosen.id, $event)"
        @give="(on) => notices.tell(() => give(chosen!.id, on))"
        @cut="cut(chosen.id, $event)"
        @recut="moveSeam"
        @remove="remove(chosen.id)"
        @choose="chosenId = $event"
      />
    </div>
  </template>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: center;
  margin-bottom: 0.6rem;
}
.propose {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  margin: 0.6rem 0;
  font-size: 0.9rem;
}
.propose .bar {
  width: 10rem;
  height: 0.5rem;
}
.changes {
  border-left: 2px solid var(--warm);
  padding-left: 0.8rem;
  margin: 0.5rem 0;
  max-height: 9rem;
  overflow: auto;
}
.changes li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 15rem;
  gap: 1.2rem;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
