<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { storeToRefs } from 'pinia';
import { computed, onMounted } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useDesk } from './desk.ts';
import { deskLines } from './deskLines.ts';
import FirstSteps from './FirstSteps.vue';
import { isForPage, usePage, useSession } from '../session/index.ts';
import { dayText } from '../ui/index.ts';

const page = usePage();
const session = useSession();
const router = useRouter();
const store = useDesk();
const { desk } = storeToRefs(store);
onMounted(() => page.open(store.open));

const groups = computed(() => (desk.value ? deskLines(desk.value, session.me?.studio.zone ?? 'utc') : []));
/** Nothing is there that anybody could turn to, so the owner of a new studio is told where to begin. */
const isFirstDay = computed(
  () =>
    session.me?.role === 'owner' && desk.value !== undefined && groups.value.every(({ lines }) => lines.length === 0),
);
useEventListener('keydown', (event) => {
  const line = groups.value.flatMap(({ lines }) => lines).find(({ key }) => key === event.key);
  if (!line || !isForPage(event)) return;
  event.preventDefault();
  void router.push(line.to);
});
</script>

<template>
  <header class="head">
    <h1>Desk</h1>
    <p class="soft">{{ desk ? dayText(desk.today) : '' }}</p>
  </header>
  <FirstSteps v-if="isFirstDay" />
  <div class="groups">
    <section v-for="{ name, empty, lines, more } in groups" :key="name" :aria-label="name">
      <h2>{{ name }}</h2>
      <p v-if="lines.length === 0" class="soft">
        {{ empty }}
        <RouterLink v-if="name === 'Lessons'" :to="{ name: 'series' }">Begin a series</RouterLink>
      </p>
      <ol class="quiet-list">
        <li v-for="line in lines" :key="line.id" :class="{ urgent: line.isUrgent }">
          <kbd v-if="line.key">{{ line.key }}</kbd><span v-else></span>
          <p>
            <RouterLink :to="line.to">{{ line.what }}</RouterLink> <span class="soft">{{ line.of }}</span>
          </p>
          <span class="when">{{ line.when }}</span>
          <p class="why">{{ line.why }}</p>
        </li>
      </ol>
      <p v-if="more" class="soft">{{ more }}</p>
    </section>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: 1rem;
  margin-bottom: 0.8rem;
}
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(26rem, 1fr));
  gap: 1.6rem 2.4rem;
}
li {
  display: grid;
  grid-template-columns: 1.6rem minmax(0, 1fr) auto;
  gap: 0 0.5rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.4rem 0 0.45rem;
}
kbd {
  align-self: start;
  justify-self: start;
  margin-top: 0.2rem;
}
.when {
  white-space: nowrap;
}
.urgent .when {
  color: var(--warm);
  font-weight: 650;
}
.why {
  grid-column: 2 / -1;
  color: var(--ink-soft);
  font-size: 0.93rem;
}
.urgent .why {
  color: var(--ink);
  border-left: 2px solid var(--warm);
  padding-left: 0.5rem;
}
@media (max-width: 720px) {
  .groups {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
