<script setup lang="ts">
import type { StruckKind, StruckLine, StruckQuery } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { ref } from 'vue';
import { useNotices, useSession } from '../session/index.ts';
import { momentText } from '../ui/index.ts';
import { findStruck, putBack } from './struck.ts';

defineOptions({ inheritAttrs: false });
const props = defineProps<{
  /** Whose, and of which song. */
  query: StruckQuery;
  kinds: readonly StruckKind[];
}>();
/** Something is back; what is shown is to be read anew. */
const emit = defineEmits<{ back: [] }>();

const notices = useNotices();
const session = useSession();
const lines = ref<readonly StruckLine[]>();
const trouble = ref('');

function open(): Promise<void> {
  return notices.tell(async () => {
    trouble.value = '';
    lines.value = await findStruck(props.query, props.kinds);
  });
}

async function back(line: StruckLine): Promise<void> {
  try {
    trouble.value = '';
    await putBack(line);
    emit('back');
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be put back.';
  }
  lines.value = await findStruck(props.query, props.kinds).catch(() => lines.value);
}

const when = ({ at }: StruckLine) => (at === null ? '' : momentText(at, session.me?.studio.zone ?? 'utc'));
</script>

<template>
  <Button
    v-bind="$attrs"
    size="small"
    text
    severity="secondary"
    icon="pi pi-history"
    label="Struck out"
    @click="open"
  />
  <Dialog
    v-if="lines"
    visible
    modal
    header="Struck out"
    :style="{ width: '38rem' }"
    :breakpoints="{ '680px': '96vw' }"
    @update:visible="lines = undefined"
  >
    <p v-if="lines.length === 0" class="soft">Nothing is struck out here.</p>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <ul class="quiet-list">
      <li v-for="line in lines" :key="line.id">
        <span class="what">
          <strong>{{ line.name }}</strong> <span class="soft">{{ line.kind }}</span>
          <span class="soft place">{{ [line.place, when(line)].filter(Boolean).join(', ') }}</span>
        </span>
        <Button
          v-if="line.mayPutBack"
          size="small"
          outlined
          label="Put back"
          :aria-label="`Put ${line.kind} ${line.name} back`"
          @click="back(line)"
        />
        <span v-else class="soft">by whoever wrote it</span>
      </li>
    </ul>
  </Dialog>
</template>

<style scoped>
li {
  display: flex;
  gap: 0.4rem 1rem;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 0.35rem 0;
}
.what {
  min-width: 0;
  overflow-wrap: anywhere;
}
.place {
  display: block;
}
.trouble {
  color: var(--warm);
}
</style>
