<script setup lang="ts">
import {
  MOST_WORK_MINUTES,
  type SchoolName,
  type Student,
  type StudentChange,
  type StudioSchools,
} from '@jam-ledger/contract';
import { reachOfSpan } from '@jam-ledger/core/fretboard';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { computed, onMounted, ref } from 'vue';
import { api } from '../api/index.ts';
import { SCHOOL_QUESTIONS, withSchool } from '../composables/schoolWords.ts';
import FieldRow from '../parts/FieldRow.vue';
import GuitarForm from '../parts/GuitarForm.vue';
import SchoolChoice from '../parts/SchoolChoice.vue';
import { useNotices, useSession } from '../stores/index.ts';

const notices = useNotices();
const session = useSession();
const students = ref<readonly Student[]>();
const studio = ref<StudioSchools>();
const open = ref<string>();
const isOwner = computed(() => session.me?.role === 'owner');

async function load(): Promise<void> {
  [students.value, studio.value] = await Promise.all([api.students(), api.schools()]);
}
onMounted(() => notices.tell(load));

async function keep(student: Student, change: StudentChange): Promise<void> {
  const kept = await api.changeStudent(student.id, change);
  await load();
  const { guitar, schools } = student;
  notices.say(`Guitar and hand of ${student.name} are kept.`, async () => {
    await api.changeStudent(student.id, { guitar, schools, version: kept.version });
    await load();
  });
}

function teach(name: SchoolName, word: string | null): Promise<void> {
  return change((before) => withSchool(before, name, word));
}
function work(workMinutes: number | null): Promise<void> {
  return change((before) => (workMinutes === null ? before : { ...before, workMinutes }));
}

function change(to: (before: StudioSchools) => StudioSchools): Promise<void> {
  return notices.tell(async () => {
    const before = studio.value;
    if (!before) return;
    studio.value = await api.changeSchools(to(before));
    const { version } = studio.value;
    notices.say('How the studio teaches is kept.', async () => {
      studio.value = await api.changeSchools({ ...before, version });
    });
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
  const own = [schools.picking, schools.position, schools.first].filter((school) => school !== null);
  return own.length === 0 ? 'as the studio' : own.join(', ');
}
</script>

<template>
  <h1>Students</h1>
  <p v-if="students?.length === 0" class="soft">The studio has no students yet.</p>
  <table v-else-if="students && studio" class="students">
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
  <section v-if="studio" class="studio" aria-label="How the studio teaches">
    <h2>How the studio teaches</h2>
    <p class="soft">
      {{
        isOwner
          ? 'It holds for every student who is not taught otherwise; on the desk the other way is one key away.'
          : 'The owner decides this; a student may be taught otherwise, and on the desk the other way is one key away.'
      }}
    </p>
    <FieldRow v-slot="{ id }" label="Transcribing, a week" hint="minutes" class="hours">
      <InputNumber
        :model-value="studio.workMinutes"
        :input-id="id"
        :min="0"
        :max="MOST_WORK_MINUTES"
        :use-grouping="false"
        :disabled="!isOwner"
        @update:model-value="work"
      />
    </FieldRow>
    <div class="schools">
      <SchoolChoice
        v-for="{ name, label, words, explains } in SCHOOL_QUESTIONS"
        :key="name"
        :model-value="studio[name]"
        :label="label"
        :words="words"
        :disabled="!isOwner"
        :explains="explains"
        @update:model-value="teach(name, $event)"
      />
    </div>
  </section>
</template>

<style scoped>
.hours {
  max-width: 12rem;
  margin-top: 0.6rem;
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
.studio {
  margin-top: 2rem;
}
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 1rem 1.5rem;
  margin-top: 0.7rem;
  max-width: 60rem;
}
</style>
