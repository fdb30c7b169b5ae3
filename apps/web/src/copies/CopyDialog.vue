<script setup lang="ts">
import type { CopyBody, CopyPreview } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import Dialog from 'primevue/dialog';
import Message from 'primevue/message';
import ProgressBar from 'primevue/progressbar';
import Select from 'primevue/select';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useNotices } from '../session/index.ts';
import { useCopies, type Copyable } from './copies.ts';

const props = defineProps<{ choices: readonly Copyable[] }>();
const emit = defineEmits<{ done: [] }>();

const store = useCopies();
const notices = useNotices();
const router = useRouter();
const { students, songs } = storeToRefs(store);
const chosen = ref(0);
const studentId = ref<string>();
const NEW = 'new';
const songId = ref<string>(NEW);
const follows = ref(false);
const preview = ref<CopyPreview>();
const trouble = ref('');
const busy = ref(false);

const what = computed(() => props.choices[chosen.value]);
const theirs = computed(() => [
  { id: NEW, title: 'a new song' },
  ...songs.value.filter(({ student }) => student.id === studentId.value),
]);
/** What is asked for, but for whether it follows, which changes nothing of what it would come to. */
const body = computed((): Omit<CopyBody, 'follows'> | undefined =>
  what.value && studentId.value !== undefined
    ? {
        kind: what.value.kind,
        id: what.value.id,
        studentId: studentId.value,
        songId: songId.value === NEW ? null : songId.value,
      }
    : undefined,
);
const changed = computed(() =>
  (preview.value?.phrases ?? []).filter(({ changes, left }) => changes.length + left.length > 0),
);
const same = computed(() => (preview.value?.phrases.length ?? 0) - changed.value.length);
const student = computed(() => students.value.find(({ id }) => id === studentId.value)?.name ?? '');

onMounted(() => notices.tell(store.open));
watch(studentId, () => (songId.value = NEW));
watch(body, async (asked) => {
  preview.value = undefined;
  trouble.value = '';
  if (!asked) return;
  try {
    const answer = await store.preview({ ...asked, follows: false });
    // Whoever chose something else meanwhile sees that.
    if (asked === body.value) preview.value = answer;
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be looked at.';
  }
});

async function copy(): Promise<void> {
  if (!body.value) return;
  busy.value = true;
  try {
    const made = await store.copy({ ...body.value, follows: follows.value });
    emit('done');
    notices.ask(`“${made.title}” is copied for ${student.value}.`, 'Open it', () =>
      router.push({ name: 'song', params: { id: made.id } }).then(() => undefined),
    );
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be copied.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Copy for another student"
    :style="{ width: '42rem' }"
    :breakpoints="{ '720px': '96vw' }"
    @update:visible="emit('done')"
  >
    <form @submit.prevent="copy">
      <div class="choices">
        <label v-if="choices.length > 1"
          ><span>What</span>
          <Select
            v-model="chosen"
            :options="choices.map(({ label }, index) => ({ label, index }))"
            option-label="label"
            option-value="index"
            aria-label="What"
        /></label>
        <label
          ><span>For</span>
          <Select
            v-model="studentId"
            :options="[...students]"
            option-label="name"
            option-value="id"
            placeholder="a student"
            filter
            autofocus
            aria-label="For"
        /></label>
        <label v-if="studentId"
          ><span>Into</span>
          <Select v-model="songId" :options="theirs" option-label="title" option-value="id" aria-label="Into" />
        </label>
      </div>
      <p v-if="studentId" class="check">
        <Checkbox v-model="follows" binary input-id="follows" />
        <label for="follows"
          >Follow the original: its text comes along when that changes, until this one is changed</label
        >
      </p>
      <ProgressBar v-if="studentId && !preview && !trouble" mode="indeterminate" aria-label="Fitting it" />
      <section v-if="preview" aria-label="What changes">
        <p v-if="preview.phrases.length === 0">There is no phrase in it yet; the form goes along.</p>
        <p v-else-if="changed.length === 0">
          All of it fits {{ student }}’s guitar and hand as it is ({{ preview.phrases.length }}
          {{ preview.phrases.length === 1 ? 'phrase' : 'phrases' }}, {{ preview.tuning }}).
        </p>
        <template v-else>
          <p>
            Fitted to {{ student }}’s guitar and hand ({{ preview.tuning }})<template v-if="same > 0"
              >; {{ same }} of {{ preview.phrases.length }} stay as they are</template
            >:
          </p>
          <ul class="quiet-list">
            <li v-for="(phrase, index) in changed" :key="index">
              <strong>{{ phrase.name }}</strong> <span class="soft">{{ phrase.section }}</span>
              <p v-if="phrase.before !== phrase.after" class="texts">
                <del>{{ phrase.before }}</del>
                <ins>{{ phrase.after }}</ins>
              </p>
              <p v-for="line in phrase.changes" :key="line">{{ line }}</p>
              <p v-for="line in phrase.left" :key="line" class="left">Still: {{ line }}</p>
            </li>
          </ul>
        </template>
      </section>
      <Message v-if="trouble" severity="error" :closable="false">{{ trouble }}</Message>
      <footer>
        <Button type="submit" label="Copy" :disabled="busy || !preview" />
        <Button type="button" text severity="secondary" label="Cancel" @click="emit('done')" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
}
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0.7rem;
}
.choices label {
  display: grid;
  gap: 0.2rem;
  font-weight: 600;
}
.check {
  display: flex;
  gap: 0.5rem;
  align-items: flex-start;
  margin: 0;
}
ul {
  max-height: 40vh;
  overflow-y: auto;
}
li {
  border-bottom: 1px solid var(--rule);
  padding: 0.4rem 0;
}
li p {
  margin: 0.1rem 0;
}
.texts {
  display: grid;
  font-family: var(--type-mono);
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
del {
  color: var(--ink-soft);
}
ins {
  text-decoration: none;
}
.left {
  color: var(--warm);
}
footer {
  display: flex;
  gap: 0.6rem;
}
</style>
