<script setup lang="ts">
import { SIGN_IN_LIMITS } from '@jam-ledger/contract';
import InputText from 'primevue/inputtext';
import { FieldRow } from '../ui/index.ts';

defineProps<{
  label: string;
  /** Whether it is chosen here, or the one that holds is asked for. */
  chosen?: boolean;
  hint?: string;
  problem?: string | undefined;
}>();
const password = defineModel<string>({ required: true });
</script>

<template>
  <FieldRow v-slot="{ id, invalid }" :label="label" v-bind="hint === undefined ? {} : { hint }" :problem="problem">
    <InputText
      :id="id"
      v-model="password"
      type="password"
      :invalid="invalid"
      :autocomplete="chosen ? 'new-password' : 'current-password'"
      :maxlength="SIGN_IN_LIMITS.password"
    />
  </FieldRow>
</template>
