<script setup lang="ts">
import Checkbox from 'primevue/checkbox';
import { REQUEST_LIMITS, USUAL_PARTS } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';

defineProps<{ wantedProblem: string | undefined; notWantedProblem: string | undefined }>();
const wanted = defineModel<readonly string[]>('wanted', { required: true });
const notWanted = defineModel<readonly string[]>('notWanted', { required: true });

const own = ref('');
/** A line of the list: a part that may be wanted, or not. */
interface PartLine {
  readonly part: string;
}
const parts = computed((): PartLine[] =>
  [...new Set([...USUAL_PARTS, ...wanted.value, ...notWanted.value])].map((part) => ({ part })),
);

function toggle(list: readonly string[], part: string): readonly string[] {
  return list.includes(part) ? list.filter((one) => one !== part) : [...list, part];
}

/** A part is in, or not in, or not spoken of. */
function choose(part: string, side: 'in' | 'out'): void {
  if (side === 'in') {
    notWanted.value = notWanted.value.filter((one) => one !== part);
    wanted.value = toggle(wanted.value, part);
  } else {
    wanted.value = wanted.value.filter((one) => one !== part);
    notWanted.value = toggle(notWanted.value, part);
  }
}

function addOwn(): void {
  const part = own.value.trim();
  if (part === '') return;
  if (!wanted.value.includes(part)) choose(part, 'in');
  own.value = '';
}

const sides = computed(() => [
  { side: 'in' as const, head: 'in', list: wanted.value },
  { side: 'out' as const, head: 'not in', list: notWanted.value },
]);

/** What is typed and not added yet counts when the slip is handed in. */
defineExpose({ addOwn });
</script>

<template>
  <fieldset class="parts">
    <legend>Parts</legend>
    <DataTable :value="parts" data-key="part" size="small" :table-props="{ 'aria-label': 'Parts' }">
      <Column header="part" field="part" class="part" :pt="{ bodyCell: { role: 'rowheader' } }" />
      <Column v-for="{ side, head, list } in sides" :key="side" :header="head" class="tick">
        <template #body="{ data: { part } }: { data: PartLine }">
          <Checkbox
            binary
            :model-value="list.includes(part)"
            :aria-label="`${part}: ${head}`"
            @update:model-value="choose(part, side)"
          />
        </template>
      </Column>
    </DataTable>
    <div class="own">
      <InputText
        v-model="own"
        aria-label="Another part, in your words"
        placeholder="that lick at 1:09 …"
        :maxlength="REQUEST_LIMITS.part"
        @keydown.enter.prevent="addOwn"
      />
      <Button type="button" size="small" outlined label="Add" @click="addOwn" />
    </div>
    <p v-if="wantedProblem" class="problem" role="alert">{{ wantedProblem }}</p>
    <p v-if="notWantedProblem" class="problem" role="alert">{{ notWantedProblem }}</p>
  </fieldset>
</template>

<style scoped>
.parts {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
  padding: 0;
}
.parts :deep(.part) {
  width: 100%;
  overflow-wrap: anywhere;
}
.parts :deep(.tick) {
  white-space: nowrap;
}
.own {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.4rem;
}
.own :deep(input) {
  flex: 1;
  min-width: 0;
}
.problem {
  color: var(--warm);
  font-size: 0.9rem;
}
</style>
