<script setup lang="ts">
import { computed, onMounted } from 'vue';
import { RouterLink } from 'vue-router';
import { ShareBar, dayText } from '../ui/index.ts';
import { StruckButton } from '../struck/index.ts';
import TodayPlan from './TodayPlan.vue';
import { WaitingLine } from '../playing/index.ts';
import { useLedger } from '../ledger/index.ts';
import { useNotices, usePage, useSession } from '../session/index.ts';

const page = usePage();
const store = useLedger();
const notices = useNotices();
const session = useSession();
onMounted(() =>
  page.open(async () => {
    await store.flush();
    await store.load();
  }),
);

const open = computed(() => store.pieces.filter(({ mastery }) => mastery.state !== 'held'));
const held = computed(() => store.pieces.filter(({ mastery }) => mastery.state === 'held'));
</script>

<template>
  <header class="head">
    <h1>Practice</h1>
    <StruckButton :query="{}" :kinds="['result', 'note']" @back="notices.tell(() => store.load())" />
  </header>
  <WaitingLine :waiting="store.waiting" @send="notices.tell(() => store.flush().then(() => store.load()))" />
  <p v-if="store.ledger && store.pieces.length === 0" class="soft">
    Nothing is assigned yet. After your next lesson your phrases appear here.
  </p>
  <TodayPlan :pieces="store.pieces" :today="session.me?.studio.today ?? store.ledger?.today ?? ''" />
  <ul class="quiet-list">
    <li v-for="piece in open" :key="piece.id" class="piece">
      <RouterLink :to="{ name: 'piece', params: { id: piece.id } }">
        <strong>{{ piece.phrase.name }}</strong>
        <span class="soft">{{ piece.section.label }}, {{ piece.song.title }}</span>
        <span class="reason">{{ piece.next.reason }}</span>
      </RouterLink>
      <span class="bpm">{{ piece.next.bpm }}<small> bpm</small></span>
      <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
    </li>
  </ul>
  <template v-if="held.length > 0">
    <h2 class="held">Held</h2>
    <ul class="quiet-list">
      <li v-for="piece in held" :key="piece.id" class="piece">
        <RouterLink :to="{ name: 'piece', params: { id: piece.id } }">
          <strong>{{ piece.phrase.name }}</strong>
          <span class="soft">{{ piece.section.label }}, {{ piece.song.title }}</span>
          <span v-if="piece.due" class="soft">Again by {{ dayText(piece.due.day) }}</span>
        </RouterLink>
        <span class="bpm">{{ piece.targetBpm }}<small> bpm</small></span>
        <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
      </li>
    </ul>
  </template>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}
.piece {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 6rem 8rem;
  gap: 1rem;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 0.7rem 0;
  max-width: 56rem;
}
.piece a {
  display: flex;
  flex-direction: column;
  color: var(--ink);
  text-decoration: none;
}
.piece strong {
  font-family: var(--type-book);
  font-size: 1.1rem;
}
.bpm {
  font-size: 1.5rem;
  font-weight: 650;
}
.bpm small {
  font-size: 0.85rem;
  font-weight: 400;
}
.held {
  margin-top: 1.5rem;
}
@media (max-width: 720px) {
  .piece {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
