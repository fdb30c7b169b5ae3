<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { HOME_DAYS, usePeople, type Home } from './people.ts';
import { dayText } from '../ui/index.ts';
import { usePage, useSession } from '../session/index.ts';

const page = usePage();
const session = useSession();
const people = usePeople();
const home = ref<Home>();
const lessons = computed(() => home.value?.lessons);
const series = computed(() => home.value?.series ?? []);
const notes = computed(() => home.value?.notes ?? []);
const today = computed(() => session.me?.studio.today ?? '');
/** Whether names are told: a guardian may have several children. */
const isNamed = computed(() => (session.me?.wards.length ?? 0) > 1);

onMounted(() => page.open(async () => (home.value = await people.home())));
</script>

<template>
  <h1>Lessons</h1>
  <div class="columns">
    <section aria-label="To come">
      <h2>To come</h2>
      <p v-if="lessons?.length === 0" class="soft">There is no lesson in the next {{ HOME_DAYS }} days.</p>
      <ol class="quiet-list">
        <li v-for="lesson in lessons ?? []" :key="lesson.id">
          <strong>{{ lesson.day === today ? 'today' : dayText(lesson.day) }}, {{ lesson.time }}</strong>
          <span class="soft">
            <template v-if="isNamed">{{ lesson.student.name }} · </template>{{ lesson.series.title }},
            {{ lesson.number }} of {{ lesson.of }}, {{ lesson.minutes }} min</span
          >
        </li>
      </ol>
      <p v-for="one in series" :key="one.id">
        <RouterLink :to="{ name: 'series-report', params: { id: one.id } }">How “{{ one.title }}” goes</RouterLink>
      </p>
    </section>
    <section aria-label="Taken home">
      <h2>Taken home</h2>
      <p v-if="lessons && notes.length === 0" class="soft">What comes out of a lesson will appear here.</p>
      <article v-for="note in notes" :key="`${note.day} ${note.student.id}`">
        <h3>
          {{ dayText(note.day) }}<span v-if="isNamed" class="soft"> {{ note.student.name }}</span>
        </h3>
        <p v-if="note.home" class="words">{{ note.home }}</p>
        <ul v-if="note.assigned.length > 0" class="quiet-list">
          <li v-for="{ pieceId, name, bpm } in note.assigned" :key="pieceId">
            <RouterLink v-if="session.isStudent" :to="{ name: 'piece', params: { id: pieceId } }">{{
              name
            }}</RouterLink>
            <span v-else>{{ name }}</span> at {{ bpm }}
          </li>
        </ul>
        <p class="soft">{{ note.writtenBy }}</p>
      </article>
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
  gap: 2rem;
  margin-top: 0.8rem;
}
li {
  border-bottom: 1px solid var(--rule);
  padding: 0.4rem 0;
}
li .soft {
  display: block;
}
article {
  border-left: 2px solid var(--warm);
  padding-left: 0.8rem;
  margin: 0.7rem 0 1.2rem;
}
.words {
  white-space: pre-wrap;
}
</style>
