<script setup lang="ts">
import type { Person } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { dayText } from '../ui/index.ts';

defineProps<{
  people: readonly Person[];
  /** Whether a person can be changed by whoever looks. */
  mayChange: (person: Person) => boolean;
  /** Whether whoever looks hands out links for signing in to them. */
  mayInvite: (person: Person) => boolean;
  /** Whether whoever looks says who owns the studio. */
  isOwner: boolean;
  dayOf: (moment: string) => string;
}>();
const emit = defineEmits<{
  invite: [person: Person];
  edit: [person: Person];
  own: [person: Person, role: 'owner' | 'teacher'];
  archive: [person: Person];
  restore: [person: Person];
  erase: [person: Person];
  keep: [person: Person];
}>();
function saysIn({ signsIn, invitedUntil, archived, eraseOn }: Person, dayOf: (moment: string) => string): string {
  if (eraseOn !== null) return `erased on ${dayText(eraseOn, 'short')}`;
  if (archived) return 'archived';
  const invited = invitedUntil === null ? '' : `invited until ${dayText(dayOf(invitedUntil), 'short')}`;
  if (signsIn) return invited === '' ? 'signs in' : `signs in, ${invited}`;
  return invited === '' ? 'not invited yet' : invited;
}
</script>

<template>
  <DataTable :value="[...people]" data-key="id" size="small" class="people slips" scrollable>
    <Column header="Name">
      <template #body="{ data }: { data: Person }"
        ><span :class="['name', { away: data.archived }]">{{ data.name }}</span></template
      >
    </Column>
    <Column field="role" header="Role" />
    <Column header="Belongs to">
      <template #body="{ data }: { data: Person }">
        <template v-if="data.wards.length > 0"
          >guardian of {{ data.wards.map(({ name }) => name).join(', ') }}</template
        >
        <template v-else-if="data.teacher">taught by {{ data.teacher.name }}</template>
      </template>
    </Column>
    <Column header="Signing in">
      <template #body="{ data }: { data: Person }">{{ saysIn(data, dayOf) }}</template>
    </Column>
    <Column>
      <template #header><span class="unseen">Change</span></template>
      <template #body="{ data }: { data: Person }">
        <span v-if="mayChange(data)" class="buttons">
          <template v-if="!data.archived">
            <Button
              v-if="mayInvite(data)"
              size="small"
              text
              :label="data.signsIn ? 'New password link' : 'Invite'"
              :aria-label="`${data.signsIn ? 'New password link for' : 'Invite'} ${data.name}`"
              @click="emit('invite', data)"
            />
            <Button
              size="small"
              text
              severity="secondary"
              label="Edit"
              :aria-label="`Edit ${data.name}`"
              @click="emit('edit', data)"
            />
            <Button
              v-if="isOwner && (data.role === 'teacher' || data.role === 'owner')"
              size="small"
              text
              severity="secondary"
              :label="data.role === 'owner' ? 'Make a teacher' : 'Make an owner'"
              :aria-label="`Make ${data.name} ${data.role === 'owner' ? 'a teacher' : 'an owner'}`"
              @click="emit('own', data, data.role === 'owner' ? 'teacher' : 'owner')"
            />
            <Button
              size="small"
              text
              severity="secondary"
              label="Archive"
              :aria-label="`Archive ${data.name}`"
              @click="emit('archive', data)"
            />
          </template>
          <template v-else-if="data.eraseOn !== null">
            <Button
              v-if="isOwner"
              size="small"
              text
              label="Do not erase"
              :aria-label="`Do not erase ${data.name}`"
              @click="emit('keep', data)"
            />
          </template>
          <template v-else>
            <Button
              size="small"
              text
              label="Bring back"
              :aria-label="`Bring ${data.name} back`"
              @click="emit('restore', data)"
            />
            <Button
              v-if="isOwner && data.role === 'student'"
              size="small"
              text
              severity="danger"
              label="Erase"
              :aria-label="`Erase ${data.name}`"
              @click="emit('erase', data)"
            />
          </template>
        </span>
      </template>
    </Column>
  </DataTable>
</template>

<style scoped>
.people {
  max-width: 68rem;
}
.name {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.away {
  color: var(--ink-soft);
  font-weight: 400;
  text-decoration: line-through;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
}
</style>
