<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { lettersAct, useSession } from '../session/index.ts';
import { KeyTable, shownSigns, TickBox } from '../ui/index.ts';
import { useGuide } from './guide.ts';
import { keysOfPage } from './keysOfPage.ts';
import { bookSignsOf, purposeOf } from './pages.ts';

const props = defineProps<{ page: unknown }>();
const open = defineModel<boolean>('open', { required: true });
const session = useSession();
const guide = useGuide();
/** Signs of the book, then those of the tabs that are shown just now. */
const signs = computed(() => [...bookSignsOf(props.page), ...shownSigns.value]);

function begin(): void {
  open.value = false;
  guide.begin();
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Help with this page" :style="{ width: 'min(40rem, 94vw)' }">
    <p v-if="purposeOf(page)">{{ purposeOf(page) }}</p>
    <p class="ways">
      <Button v-if="guide.steps.length > 0" size="small" outlined label="Take the first steps" @click="begin" />
      <RouterLink v-if="session.isTeacher" :to="{ name: 'shorthand' }" @click="open = false"
        >The shorthand in five minutes</RouterLink
      >
    </p>
    <template v-if="signs.length > 0">
      <h2>Signs</h2>
      <dl class="signs">
        <template v-for="[sign, meaning] in signs" :key="sign">
          <dt>{{ sign }}</dt>
          <dd>{{ meaning }}</dd>
        </template>
      </dl>
    </template>
    <h2>Keys</h2>
    <KeyTable :keys="keysOfPage(page)" />
    <TickBox v-model="lettersAct">Single letters and signs act on this device</TickBox>
  </Dialog>
</template>

<style scoped>
h2 {
  font-size: 1.05rem;
  margin: 1rem 0 0.3rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
  margin-top: 0.7rem;
}
.signs {
  display: grid;
  grid-template-columns: minmax(5rem, auto) 1fr;
  gap: 0.2rem 0.9rem;
  margin: 0;
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
}
</style>
