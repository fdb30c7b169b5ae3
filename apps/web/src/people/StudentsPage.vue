<script setup lang="ts">
import type { Student, StudentChange } from '@jam-ledger/contract';
import { reachOfSpan } from '@jam-ledger/core/fretboard';
import Button from 'primevue/button';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import GuitarForm from './GuitarForm.vue';
import StudentsTable from './StudentsTable.vue';
import { headed } from '../ui/index.ts';
import { useNotices, usePage } from '../session/index.ts';
import { useStudents } from './students.ts';

const page = usePage();
const notices = useNotices();
const store = useStudents();
const { students, studio } = storeToRefs(store);
const open = ref<string>();
const expanded = computed(() => (open.value === undefined ? {} : { [open.value]: true }));
onMounted(() => page.open(store.open));

async function keep(student: Student, change: StudentChange): Promise<void> {
  const undo = await store.change(student, change);
  notices.say(`Guitar and hand of ${student.name} are saved.`, undo);
}

function enterAll(names: readonly string[]): Promise<void> {
  return notices.tell(async () => {
    const undo = await store.enterAll(names);
    notices.say(names.length === 1 ? 'One student is added.' : `${names.length} students are added.`, undo);
  });
}

function sayGuitar({ guitar }: Student): string {
  const { frets, strings, scaleLengthMm, tremoloArm } = guitar;
  return `${strings} strings, ${frets} frets, ${scaleLengthMm} mm${tremoloArm ? ', tremolo arm' : ''}`;
}
function sayHand({ guitar }: Student): string {
  const { spanFrets, leftHanded, scaleLengthMm } = guitar;
  const reach =
    spanFrets === null
      ? 'not asked yet'
      : `5 to ${5 + spanFrets}, ${Math.round(reachOfSpan(spanFrets, scaleLengthMm))} mm`;
  return leftHanded ? `${reach}, left-handed` : reach;
}
function saySchools({ schools }: Student): string {
  const own = Object.values(schools).filter((school) => school !== null);
  return own.length === 0 ? 'as the studio' : own.join(', ');
}
</script>

<template>
  <h1>Students</h1>
  <p v-if="students?.length === 0" class="soft">The studio has no students yet.</p>
  <DataTable
    v-else-if="students && studio"
    :expanded-rows="expanded"
    :value="[...students]"
    data-key="id"
    size="small"
    scrollable
    class="students slips"
    :table-props="{ 'aria-label': 'Students' }"
  >
    <Column header="Student" class="name" field="name" :pt="{ bodyCell: { role: 'rowheader' } }" />
    <Column header="Guitar">
      <template #body="{ data }: { data: Student }">{{ sayGuitar(data) }}</template>
    </Column>
    <Column header="Reach" :pt="headed('Reach')">
      <template #body="{ data }: { data: Student }">{{ sayHand(data) }}</template>
    </Column>
    <Column header="Taught" :pt="headed('Taught')">
      <template #body="{ data }: { data: Student }">{{ saySchools(data) }}</template>
    </Column>
    <Column>
      <template #header><span class="unseen">Change</span></template>
      <template #body="{ data }: { data: Student }">
        <Button
          size="small"
          text
          label="Change"
          :aria-label="`Change guitar and hand of ${data.name}`"
          :aria-expanded="open === data.id"
          @click="open = open === data.id ? undefined : data.id"
        />
      </template>
    </Column>
    <template #expansion="{ data }: { data: Student }">
      <GuitarForm
        :key="data.version"
        :student="data"
        :studio="studio"
        :save="(change) => keep(data, change)"
        @done="open = undefined"
      />
    </template>
  </DataTable>
  <StudentsTable v-if="students" :students="students" :enter="enterAll" />
  <p v-if="studio" class="soft below">
    How the studio teaches, unless a student is taught otherwise, is set under
    <RouterLink :to="{ name: 'studio' }">Studio</RouterLink>.
  </p>
</template>

<style scoped>
.students {
  margin-top: 0.8rem;
  max-width: 64rem;
}
.students :deep(.name) {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.below {
  margin-top: 1.2rem;
}
</style>
