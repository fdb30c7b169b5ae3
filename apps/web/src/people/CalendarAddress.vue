<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, onMounted, ref } from 'vue';
import { useNotices, useSession } from '../session/index.ts';
import { momentText } from '../ui/index.ts';
import { useCalendar } from './calendar.ts';

const calendar = useCalendar();
const notices = useNotices();
const session = useSession();
onMounted(() => notices.tell(calendar.load));

/** The address as a calendar wants it, shown once. */
const address = computed(() => (calendar.path === undefined ? undefined : new URL(calendar.path, location.href).href));
const copied = ref(false);

async function copy(): Promise<void> {
  await notices.tell(async () => {
    await navigator.clipboard.writeText(address.value ?? '');
    copied.value = true;
  });
}
</script>

<template>
  <section class="calendar" aria-label="Lessons in your calendar">
    <h2>Lessons in your calendar</h2>
    <p class="soft">
      A secret address that your calendar asks for your lessons: when and where, no names and no notes. Anyone who has
      it can read them; end it if it gets out.
    </p>
    <template v-if="address">
      <p>This address is shown only once; paste it into your calendar now.</p>
      <p class="address">
        <InputText
          :model-value="address"
          readonly
          aria-label="Address"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <Button outlined :label="copied ? 'Copied' : 'Copy'" icon="pi pi-copy" @click="copy" />
      </p>
    </template>
    <p v-else-if="calendar.madeAt">In use since {{ momentText(calendar.madeAt, session.me?.studio.zone ?? 'utc') }}.</p>
    <p class="acts">
      <Button
        outlined
        :label="calendar.madeAt ? 'Make a new address' : 'Make an address'"
        @click="notices.tell(calendar.open)"
      />
      <Button v-if="calendar.madeAt" text label="End the address" @click="notices.tell(calendar.close)" />
    </p>
  </section>
</template>

<style scoped>
.calendar {
  margin-top: 2rem;
  max-width: 34rem;
}
.address,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.address input {
  flex: 1 1 16rem;
}
</style>
