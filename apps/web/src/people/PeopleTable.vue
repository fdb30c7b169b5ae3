<script setup lang="ts">
import { PEOPLE_LIMITS, type Person } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
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
  rename: [person: Person, name: string];
  own: [person: Person, role: 'owner' | 'teacher'];
  archive: [person: Person];
  restore: [person: Person];
}>();
/** Whose name is being corrected, and what it is so far. */
const renaming = ref<{ readonly id: string; name: string }>();

function rename(person: Person): void {
  const name = renaming.value?.name.trim() ?? '';
  renaming.value = undefined;
  if (name !== '' && name !== person.name) emit('rename', person, name);
}

function saysIn({ signsIn, invitedUntil, archived }: Person, dayOf: (moment: string) => string): string {
  if (archived) return 'put away';
  const invited = invitedUntil === null ? '' : `invited until ${dayText(dayOf(invitedUntil), 'short')}`;
  if (signsIn) return invited === '' ? 'signs in' : `signs in, ${invited}`;
  return invited === '' ? 'not invited yet' : invited;
}
</script>

<template>
  <table class="people">
    <thead>
      <tr>
        <th scope="col">Name</th>
        <th scope="col">Role</th>
        <th scope="col">Belongs to</th>
        <th scope="col">Signing in</th>
        <th scope="col"><span class="unseen">Change</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="person in people" :key="person.id" :class="{ away: person.archived }">
        <th scope="row">
          <InputText
            v-if="renaming?.id === person.id"
            v-model="renaming.name"
            size="small"
            autofocus
            :aria-label="`New name of ${person.name}`"
            :maxlength="PEOPLE_LIMITS.name"
            @keydown.enter.prevent="rename(person)"
            @keydown.esc.stop="renaming = undefined"
            @blur="rename(person)"
          />
          <template v-else>{{ person.name }}</template>
        </th>
        <td>{{ person.role }}</td>
        <td>
          <template v-if="person.wards.length > 0"
            >guardian of {{ person.wards.map(({ name }) => name).join(', ') }}</template
          >
          <template v-else-if="person.teacher">taught by {{ person.teacher.name }}</template>
        </td>
        <td>{{ saysIn(person, dayOf) }}</td>
        <td class="buttons">
          <template v-if="mayChange(person)">
            <template v-if="!person.archived">
              <Button
                v-if="mayInvite(person)"
                size="small"
                text
                :label="person.signsIn ? 'New password link' : 'Invite'"
                :aria-label="`${person.signsIn ? 'New password link for' : 'Invite'} ${person.name}`"
                @click="emit('invite', person)"
              />
              <Button
                size="small"
                text
                severity="secondary"
                label="Rename"
                :aria-label="`Rename ${person.name}`"
                @click="renaming = { id: person.id, name: person.name }"
              />
              <Button
                v-if="isOwner && (person.role === 'teacher' || person.role === 'owner')"
                size="small"
                text
                severity="secondary"
                :label="person.role === 'owner' ? 'Make a teacher' : 'Make an owner'"
                :aria-label="`Make ${person.name} ${person.role === 'owner' ? 'a teacher' : 'an owner'}`"
                @click="emit('own', person, person.role === 'owner' ? 'teacher' : 'owner')"
              />
              <Button
                size="small"
                text
                severity="secondary"
                label="Put away"
                :aria-label="`Put ${person.name} away`"
                @click="emit('archive', person)"
              />
            </template>
            <Button
              v-else
              size="small"
              text
              label="Take back"
              :aria-label="`Take ${person.name} back`"
              @click="emit('restore', person)"
            />
          </template>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.people {
  border-collapse: collapse;
  width: min(64rem, 100%);
}
th {
  text-align: left;
}
thead th {
  border-bottom: 2px solid var(--ink);
  padding-bottom: 0.3rem;
}
td,
th {
  padding: 0.2rem 1rem 0.2rem 0;
}
tbody tr {
  border-bottom: 1px solid var(--rule);
}
.away {
  color: var(--ink-soft);
}
.away th {
  font-weight: 400;
  text-decoration: line-through;
}
.buttons {
  text-align: right;
  white-space: nowrap;
}
.unseen {
  position: absolute;
  clip-path: inset(50%);
}
</style>
