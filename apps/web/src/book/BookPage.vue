<script setup lang="ts">
import type { Backup } from '@jam-ledger/contract';
import Button from 'primevue/button';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import Message from 'primevue/message';
import ProgressBar from 'primevue/progressbar';
import { storeToRefs } from 'pinia';
import { computed, onMounted, onUnmounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useNotices, usePage, useSession } from '../session/index.ts';
import { chosenFile, dayText, momentText } from '../ui/index.ts';
import BackupList from './BackupList.vue';
import { sizeText, useBook } from './book.ts';
import RestoreDialog from './RestoreDialog.vue';
import TrailList from './TrailList.vue';

const page = usePage();
const book = useBook();
const session = useSession();
const notices = useNotices();
const router = useRouter();
const { state, trail, hasMore } = storeToRefs(book);
const restoring = ref<Backup>();
const bringing = ref(false);
const trouble = ref('');
const zone = computed(() => session.me?.studio.zone ?? 'utc');
const isOwner = computed(() => session.me?.role === 'owner');
const running = computed(() => (state.value?.job?.state === 'running' ? state.value.job : undefined));
const share = computed(() => {
  const { done = 0, total = 0 } = running.value ?? {};
  return total === 0 ? 0 : Math.round((100 * done) / total);
});
const newest = computed(() => state.value?.backups[0]);

onMounted(() =>
  page.open(async () => {
    if (!isOwner.value) return;
    await book.load();
    if (running.value) await follow();
  }),
);
onUnmounted(book.leave);

/** Waits for what is done with the book, and says what it came to. */
async function follow(): Promise<void> {
  const kind = running.value?.kind;
  const ended = await book.watch();
  if (ended === 'signed out') {
    notices.say('The book was restored, and everybody is signed out. Sign in with a name and a password of then.');
    await session.leave();
    await router.push({ name: 'sign-in' });
    return;
  }
  const says = state.value?.job?.says ?? '';
  trouble.value = ended === 'failed' ? says : '';
  if (ended !== 'failed' && kind === 'backup') notices.say(says);
  await book.load();
}

function back(work: () => Promise<void> | void): Promise<void> {
  return notices.tell(async () => {
    trouble.value = '';
    await work();
    await follow();
  });
}

function restoreBegan(began: boolean): void {
  restoring.value = undefined;
  if (began) void back(() => undefined);
}

async function bring(event: FileUploadSelectEvent): Promise<void> {
  const file = chosenFile(event);
  if (!file) return;
  [bringing.value, trouble.value] = [true, ''];
  try {
    restoring.value = await book.bring(file);
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'The file could not be sent.';
  } finally {
    bringing.value = false;
  }
}
</script>

<template>
  <header class="head">
    <h1>Backups and trail</h1>
    <RouterLink :to="{ name: 'studio' }">Back to the studio</RouterLink>
  </header>
  <p v-if="!isOwner" class="soft">The owner of the studio backs the book up, and reads who did what.</p>
  <template v-else-if="state">
    <section aria-label="Backups">
      <h2>Backups</h2>
      <p v-if="newest">
        The last backup was made <strong>{{ momentText(newest.madeAt, zone) }}</strong>, {{ sizeText(newest.bytes) }}.
        <span v-if="state.everyHours > 0" class="soft"
          >One is made every {{ state.everyHours === 24 ? 'day' : `${state.everyHours} hours` }}; the last
          {{ state.keep }} are kept.</span
        >
      </p>
      <p v-else-if="state.hasFolder" class="soft">
        No backup is made yet<template v-if="state.everyHours > 0">; one is made every day by itself</template>.
      </p>
      <Message v-else severity="warn" :closable="false">
        No folder for backups is set, so that nothing is backed up. Whoever runs the machine names one (BACKUP_FOLDER).
      </Message>
      <div v-if="running" class="running" role="status">
        <p>
          {{ running.kind === 'backup' ? 'Making a backup' : 'Restoring' }}, {{ running.done }} of
          {{ running.total }} rows
        </p>
        <ProgressBar :value="share" aria-label="How much of it is done" />
        <Button size="small" outlined label="Stop" @click="notices.tell(book.stop)" />
      </div>
      <div v-else-if="state.hasFolder" class="acts">
        <Button label="Back up now" icon="pi pi-save" @click="back(book.makeBackup)" />
        <FileUpload
          mode="basic"
          custom-upload
          auto
          accept=".zip,application/zip"
          :choose-label="bringing ? 'Sending …' : 'Upload a backup'"
          :disabled="bringing"
          :choose-button-props="{ outlined: true, severity: 'secondary' }"
          @select="bring"
        />
      </div>
      <Message v-if="trouble" severity="error" @close="trouble = ''">{{ trouble }}</Message>
      <BackupList
        v-if="state.backups.length > 0"
        :backups="state.backups"
        :busy="running !== undefined"
        :when="(moment) => momentText(moment, zone)"
        @restore="restoring = $event"
      />
      <p class="soft">
        A backup holds everything, names and results of children, too. Keep a copy somewhere else, and keep it locked.
      </p>
    </section>
    <section v-if="state.erasing.length > 0" aria-label="Waiting to be erased">
      <h2>Waiting to be erased</h2>
      <ul class="quiet-list">
        <li v-for="one in state.erasing" :key="one.id">
          <span
            ><strong>{{ one.name }}</strong> goes on {{ dayText(one.on) }}</span
          >
          <Button
            size="small"
            outlined
            label="Do not erase"
            :aria-label="`Do not erase ${one.name}`"
            @click="notices.tell(() => book.keep(one.id))"
          />
        </li>
      </ul>
    </section>
    <TrailList
      :lines="trail"
      :more="hasMore"
      :when="(moment) => momentText(moment, zone)"
      @earlier="notices.tell(book.showEarlier)"
    />
    <RestoreDialog
      v-if="restoring"
      :backup="restoring"
      :when="momentText(restoring.madeAt, zone)"
      :restore="book.restore"
      @done="restoreBegan"
    />
  </template>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.3rem 1.2rem;
}
section {
  margin: 0 0 2rem;
  max-width: 60rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  margin: 0.8rem 0;
}
.running {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  max-width: 28rem;
  margin: 0.8rem 0;
}
.running :deep(.p-progressbar) {
  width: 100%;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
  justify-content: space-between;
  border-bottom: 1px solid var(--rule);
  padding: 0.3rem 0;
}
</style>
