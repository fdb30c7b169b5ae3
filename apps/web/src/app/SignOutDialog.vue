<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';

defineProps<{
  /** How many things wait on this device to be sent. */
  count: number;
}>();
const emit = defineEmits<{ leave: []; stay: [] }>();
</script>

<template>
  <Dialog
    visible
    modal
    header="Sign out and lose what was not sent?"
    :style="{ width: 'min(30rem, 94vw)' }"
    @update:visible="emit('stay')"
  >
    <p>
      {{ count === 1 ? 'One thing that you did' : `${count} things that you did` }} on this device could not be sent to
      the studio yet. If you sign out now, {{ count === 1 ? 'it is' : 'they are' }} lost.
    </p>
    <footer>
      <Button label="Stay signed in" autofocus @click="emit('stay')" />
      <Button text severity="danger" label="Sign out anyway" @click="emit('leave')" />
    </footer>
  </Dialog>
</template>

<style scoped>
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-top: 1rem;
}
</style>
