<script setup lang="ts">
import {
  MAX_WORK_MINUTES,
  STUDIO_LIMITS,
  type Erasure,
  type ErasureBody,
  type Person,
  type PersonBody,
} from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { FieldRow, dayIn, dayText } from '../ui/index.ts';
import { usePeople, type PersonCorrection } from './people.ts';
import { useStudioSettings } from './useStudioSettings.ts';
import HolidayList from './HolidayList.vue';
import MailList from './MailList.vue';
import PeopleTable from './PeopleTable.vue';
import EraseDialog from './EraseDialog.vue';
import PersonDialog from './PersonDialog.vue';
import PersonForm from './PersonForm.vue';
import SchoolList from './SchoolList.vue';
import { useNotices, usePage, useSession } from '../session/index.ts';

const page = usePage();
const notices = useNotices();
const session = useSession();
const settings = useStudioSettings();
const { studio, own, problems } = settings;
const store = usePeople();
const { people, mail } = storeToRefs(store);
const entering = ref(false);
/** The link of an invitation just made, which is shown once. */
const link = ref<{ readonly to: string; readonly url: string }>();
/** Who is being corrected, and who is asked about before they are erased. */
const editing = ref<Person>();
const erasing = ref<{ readonly person: Person; readonly erasure: Erasure }>();
/** Whoever is asked about before they are put away. */
const leaving = ref<Person>();
const isOwner = computed(() => session.me?.role === 'owner');
const owners = computed(
  () => (people.value ?? []).filter(({ role, archived }) => role === 'owner' && !archived).length,
);
const zone = computed(() => session.me?.studio.zone ?? 'utc');
const teachers = computed(() =>
  (people.value ?? []).filter(({ role, archived }) => (role === 'teacher' || role === 'owner') && !archived),
);
const students = computed(() => (people.value ?? []).filter(({ role, archived }) => role === 'student' && !archived));

onMounted(() => page.open(() => Promise.all([store.open(), settings.load()])));

/** The only owner changes their own names under their name, and cannot leave. */
function mayChange({ role }: Person): boolean {
  if (role === 'owner') return isOwner.value && owners.value > 1;
  return isOwner.value || role !== 'teacher';
}

/** Whoever teaches a student hands links to them and their guardians, and any teacher where nobody does yet; the owner to all. */
function mayInvite(person: Person): boolean {
  if (isOwner.value) return true;
  const isMine = ({ teacher }: Person) => teacher === null || teacher.id === session.me?.id;
  if (person.role !== 'guardian') return isMine(person);
  return (people.value ?? []).some((one) => person.wards.some(({ id }) => id === one.id) && isMine(one));
}

const valueOf = (event: Event) => (event.target instanceof HTMLInputElement ? event.target.value : '');

async function enter(body: PersonBody): Promise<void> {
  const entered = await store.enter(body);
  notices.say(`${entered.name} is entered. Invite them, and they choose a name and a password.`);
}

function invite(person: Person): Promise<void> {
  return notices.tell(async () => {
    link.value = { to: person.name, url: `${window.location.origin}${await store.invite(person)}` };
  });
}
async function copy(): Promise<void> {
  await notices.tell(async () => {
    await navigator.clipboard.writeText(link.value?.url ?? '');
    notices.say('The link is copied.');
  });
}

/** Saves what was corrected of somebody; the notice takes it back. */
async function correct(person: Person, to: PersonCorrection): Promise<void> {
  const { name, email, teacher, wards } = person;
  const corrected = await store.correct(person, to);
  const before = { name, email, teacherId: teacher?.id ?? null, wards: wards.map(({ id }) => id) };
  notices.say(`${corrected.name} is saved.`, async () => void (await store.correct(corrected, before)));
}

function askErase(person: Person): Promise<void> {
  return notices.tell(async () => {
    erasing.value = { person, erasure: await store.erasure(person) };
  });
}
async function erase(person: Person, body: ErasureBody): Promise<void> {
  const on = await store.erase(person, body);
  notices.say(`${person.name} is erased on ${dayText(on)}.`, () => keep(person));
}
function keep(person: Person): Promise<void> {
  return notices.tell(async () => {
    await store.keep(person);
    notices.say(`${person.name} is not erased; they stay archived.`);
  });
}

function makeRole(person: Person, role: 'owner' | 'teacher'): Promise<void> {
  return notices.tell(async () => {
    const changed = await store.makeRole(person, role);
    // Whoever gives their own place away is no owner on this page any more.
    if (person.id === session.me?.id) await session.refresh();
    const words = role === 'owner' ? 'owns the studio, too' : 'is a teacher now';
    const undo =
      person.id === session.me?.id
        ? undefined
        : async () => void (await store.makeRole(changed, person.role === 'owner' ? 'owner' : 'teacher'));
    notices.say(`${person.name} ${words}.`, undo);
  });
}

function putAway(person: Person): Promise<void> {
  return notices.tell(async () => {
    leaving.value = undefined;
    const away = await store.putAway(person);
    notices.say(`${person.name} is archived; nothing of theirs is lost.`, () => takeBack(away));
  });
}
function takeBack(person: Person): Promise<void> {
  return notices.tell(async () => {
    const ended = await store.takeBack(person);
    const words = ended.length === 0 ? '' : ` Others have the hours of ${ended.join(', ')} by now; that is ended.`;
    notices.say(`${person.name} is back.${words}`);
  });
}
</script>

<template>
  <header class="head">
    <h1>Studio</h1>
    <RouterLink :to="{ name: 'studio-report' }">The studio’s report</RouterLink>
    <RouterLink v-if="isOwner" :to="{ name: 'book' }">Backups and trail</RouterLink>
  </header>
  <section aria-label="People">
    <h2>People</h2>
    <PeopleTable
      v-if="people"
      :people="people"
      :may-change="mayChange"
      :may-invite="mayInvite"
      :is-owner="isOwner"
      :day-of="(moment) => dayIn(moment, zone)"
      @invite="invite"
      @edit="editing = $event"
      @own="makeRole"
      @archive="leaving = $event"
      @restore="takeBack"
      @erase="askErase"
      @keep="keep"
    />
    <PersonDialog
      v-if="editing"
      :key="editing.id"
      :person="editing"
      :students="students"
      :teachers="teachers"
      :may-hand-on="mayInvite(editing)"
      :save="(to) => correct(editing!, to)"
      @done="editing = undefined"
    />
    <EraseDialog
      v-if="erasing"
      :person="erasing.person"
      :erasure="erasing.erasure"
      :erase="(body) => erase(erasing!.person, body)"
      @done="erasing = undefined"
    />
    <div v-if="leaving" class="slip" role="alertdialog" :aria-label="`Archive ${leaving.name}`">
      <p>
        {{ leaving.name }} will be signed out and removed from every list<template v-if="leaving.lessonsToCome > 0"
          >, and {{ leaving.lessonsToCome === 1 ? 'one lesson' : `${leaving.lessonsToCome} lessons` }} still to come
          leave the desk</template
        >. Nothing of theirs is lost; it all comes back with them.
      </p>
      <Button size="small" label="Archive" autofocus @click="putAway(leaving!)" />
      <Button size="small" text severity="secondary" label="Cancel" @click="leaving = undefined" />
    </div>
    <div v-if="link" class="slip" role="status">
      <p>
        For {{ link.to }}: <code>{{ link.url }}</code>
      </p>
      <p class="soft">It works once, for two weeks, and is shown here only now, to you alone: hand it over yourself.</p>
      <Button size="small" label="Copy it" @click="copy" />
      <Button size="small" text severity="secondary" label="Done" @click="link = undefined" />
    </div>
    <PersonForm v-if="entering" :owner="isOwner" :students="students" :save="enter" @done="entering = false" />
    <Button v-else size="small" outlined label="Add a person" @click="entering = true" />
  </section>
  <section v-if="studio" aria-label="How the studio teaches">
    <h2>How the studio teaches</h2>
    <p class="soft">
      {{
        isOwner
          ? 'It holds for every student who is not taught otherwise; on the desk the other way is one key away.'
          : 'The owner decides this; a teacher or a student may go another way, and on the desk that is one key away.'
      }}
    </p>
    <div class="schools">
      <FieldRow v-slot="{ id, invalid }" label="Name of the studio" :problem="problems['name']">
        <InputText
          :id="id"
          :model-value="studio.name"
          :invalid="invalid"
          :disabled="!isOwner"
          :maxlength="STUDIO_LIMITS.name"
          @change="settings.rename(valueOf($event))"
        />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Transcribing, a week" hint="minutes">
        <InputNumber
          :model-value="studio.workMinutes"
          :input-id="id"
          :min="0"
          :max="MAX_WORK_MINUTES"
          :use-grouping="false"
          :disabled="!isOwner"
          @update:model-value="settings.work"
        />
      </FieldRow>
      <FieldRow v-slot="{ id, invalid }" label="Time zone" hint="where the studio is" :problem="problems['zone']">
        <InputText
          :id="id"
          :model-value="studio.zone"
          :invalid="invalid"
          :disabled="!isOwner"
          @change="settings.move(valueOf($event))"
        />
      </FieldRow>
      <SchoolList :schools="studio" :disabled="!isOwner" @choose="settings.teach" />
    </div>
    <HolidayList
      :holidays="studio.holidays"
      :disabled="!isOwner"
      :problem="problems['holidays']"
      :today="session.me?.studio.today ?? ''"
      @add="settings.close"
      @bring="settings.closeAll"
      @remove="settings.open"
    />
  </section>
  <section v-if="own && studio" aria-label="How you teach">
    <h2>How you teach</h2>
    <p class="soft">For your own students, where they are not taught otherwise.</p>
    <div class="schools">
      <SchoolList :schools="own.schools" :studio="studio" @choose="settings.changeOwn" />
    </div>
  </section>
  <MailList :mail="mail" :zone="zone" />
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 1.2rem;
}
section {
  margin-bottom: 1.8rem;
}
section > h2 {
  margin: 0.4rem 0 0.3rem;
}
.slip {
  border-left: 3px solid var(--warm);
  background: var(--warm-wash);
  padding: 0.5rem 0.8rem;
  margin: 0.5rem 0;
  max-width: 50rem;
}
code {
  font-family: var(--type-mono);
  overflow-wrap: anywhere;
}
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 1rem 1.5rem;
  margin: 0.7rem 0 1rem;
  max-width: 64rem;
}
</style>
