<script setup lang="ts">
import { SIGN_IN_LIMITS, type Backup } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { FieldRow, useForm } from '../ui/index.ts';

const props = defineProps<{
  backup: Backup;
  /** When it was made, in words. */
  when: string;
  restore: (file: string, password: string) => Promise<void>;
}>();
/** Whether it has begun. */
const emit = defineEmits<{ done: [began: boolean] }>();
const { fields, problems, trouble, busy, send } = useForm('restoringSchema', { file: props.backup.file, password: '' });

async function submit(): Promise<void> {
  if (await send(({ file, password }) => props.restore(file, password))) emit('done', true);
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Restore this backup?"
    :style="{ width: '32rem' }"
    :breakpoints="{ '640px': '96vw' }"
    @update:visible="emit('done', false)"
  >
    <form novalidate @submit.prevent="submit">
      <p>
        The book becomes what it was <strong>{{ when }}</strong> ({{ backup.studios.join(', ') }}): what was written
        since then is no longer in it. A backup of how it is now is made first, so that you can go back.
      </p>
      <p>Everybody is signed out, you too, and signs in with the name and password of then.</p>
      <FieldRow v-slot="{ id, invalid }" label="Your password" :problem="problems['password'] ?? problems['file']">
        <InputText
          :id="id"
          v-model="fields.password"
          type="password"
          :invalid="invalid"
          autofocus
          autocomplete="current-password"
          :maxlength="SIGN_IN_LIMITS.password"
        />
      </FieldRow>
      <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
      <footer>
        <Button type="submit" label="Restore" severity="danger" :disabled="busy" />
        <Button type="button" text severity="secondary" label="Cancel" @click="emit('done', false)" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
}
footer {
  display: flex;
  gap: 0.6rem;
}
.trouble {
  color: var(--warm);
}
</style>
