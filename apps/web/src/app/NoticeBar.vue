<script setup lang="ts">
import Button from 'primevue/button';
import Message from 'primevue/message';
import ProgressBar from 'primevue/progressbar';
import { useNotices } from '../session/index.ts';

/** What was done, said at the foot of every page, with the way back. The region is there before anything is said in it. */
const notices = useNotices();
/** The region announces; the message in it does not do so once more. */
const QUIET = { root: { role: 'group', 'aria-live': 'off', 'aria-label': 'Notice' } };
</script>

<template>
  <ProgressBar v-if="notices.going > 0" class="going" mode="indeterminate" aria-label="It is being done" />
  <div class="notices" role="status">
    <Message
      v-if="notices.notice"
      :key="notices.notice.text"
      severity="secondary"
      closable
      :pt="QUIET"
      :close-button-props="{ 'aria-label': 'Dismiss' }"
      @close="notices.notice = null"
    >
      <span>{{ notices.notice.text }}</span>
      <Button
        v-if="notices.notice.undo"
        size="small"
        :label="notices.notice.label ?? 'Undo'"
        outlined
        @click="notices.takeBack()"
      />
    </Message>
  </div>
</template>

<style scoped>
.going {
  position: fixed;
  inset: 0 0 auto;
  height: 4px;
  z-index: 20;
}
.notices {
  position: fixed;
  inset: auto auto 1rem 50%;
  transform: translateX(-50%);
  width: max-content;
  max-width: calc(100vw - 2rem);
  z-index: 20;
}
.notices :deep(.p-message) {
  background: var(--page);
  border: 1px solid var(--ink);
  outline: 0;
  color: var(--ink);
}
.notices :deep(.p-message-text) {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  overflow-wrap: anywhere;
}
</style>
