<script setup lang="ts">
import Checkbox from 'primevue/checkbox';
import { useId } from 'vue';

/** A box to tick, with its words in the slot. */
const ticked = defineModel<boolean>({ required: true });
const id = useId();
</script>

<template>
  <span class="tick"
    ><Checkbox v-model="ticked" binary :input-id="id" size="small" /><label :for="id"><slot /></label
  ></span>
</template>

<style scoped>
.tick {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}
</style>
