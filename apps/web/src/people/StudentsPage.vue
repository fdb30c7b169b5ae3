<script setup lang="ts">
import type { Student, StudentChange } from '@jam-ledger/contract';
import { reachOfSpan } from '@jam-ledger/core/fretboard';
import Button from 'primevue/button';
import { storeToRefs } from 'pinia';
import { onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import GuitarForm from './GuitarForm.vue';
import StudentsTable from './StudentsTable.vue';
import { useNotices, usePage } from '../session/index.ts';
import { useStudents } from './students.ts';

const page = usePage();
const notices = useNotices();
const store = useStudents();
const { students, studio } = storeToRefs(store);
const open = ref<string>();
onMounted(() => page.open(store.open));

async function keep(student: Student, change: StudentChange): Promise<void> {
  const undo = await store.change(student, change);
  notices.say(`Guitar and hand of ${student.name} are saved.`, undo);
}

function enterAll(names: readonly string[]): Promise<void> {
  return notices.tell(async () => {
    const undo = await store.enterAll(names);
    notices.say(names.length === 1 ? 'One student is entered.' : `${names.length} students are entered.`, undo);
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
  <div v-else-if="students && studio" class="frame">
    <table class="students">
      <thead>
        <tr>
          <th scope="col">Student</th>
          <th scope="col">Guitar</th>
          <th scope="col">Reach</th>
          <th scope="col">Taught</th>
          <th scope="col"><span class="unseen">Change</span></th>
        </tr>
      </thead>
      <tbody v-for="student in students" :key="student.id">
        <tr>
          <th scope="row">{{ student.name }}</th>
          <td>{{ sayGuitar(student) }}</td>
          <td>{{ sayHand(student) }}</td>
          <td>{{ saySchools(student) }}</td>
          <td>
            <Button
              size="small"
              text
              label="Change"
              :aria-label="`Change guitar and hand of ${student.name}`"
              :aria-expanded="open === student.id"
              @click="open = open === student.id ? undefined : student.id"
            />
          </td>
        </tr>
        <tr v-if="open === student.id">
          <td colspan="5">
            <GuitarForm
              :key="student.version"
              :student="student"
              :studio="studio"
              :save="(change) => keep(student, change)"
              @done="open = undefined"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <StudentsTable v-if="students" :students="students" :enter="enterAll" />
  <p v-if="studio" class="soft below">
    How the studio teaches where nobody is taught otherwise stands under
    <RouterLink :to="{ name: 'studio' }">Studio</RouterLink>.
  </p>
</template>

<style scoped>
.frame {
  overflow-x: auto;
}
.students {
  margin-top: 0.8rem;
  border-collapse: collapse;
  width: min(64rem, 100%);
}
th {
  text-align: left;
}
thead th {
  border-bottom: 2px solid var(--ink);
}
td,
th {
  padding: 0.4rem 1rem 0.4rem 0;
}
tbody tr:first-child td,
tbody tr:first-child th {
  border-top: 1px solid var(--rule);
}
thead th {
  padding-bottom: 0.3rem;
}
.unseen {
  position: absolute;
  clip-path: inset(50%);
}
.below {
  margin-top: 1.2rem;
}
</style>
