<script setup lang="ts">
import type { Guitar } from '@jam-ledger/core/fretboard';
import { isTextTab } from '@jam-ledger/core/formats';
import type { Meter } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { askFiles, type ReadFile } from '../../files/index.ts';
import { useNotices } from '../../session/index.ts';

const props = defineProps<{ text: string; guitar: Guitar; meter: Meter }>();
const emit = defineEmits<{ write: [text: string] }>();

const notices = useNotices();
const busy = ref(false);
/** Lines of strings one under the other are no shorthand. */
const isTab = computed(() => props.text.includes('\n') && isTextTab(props.text));

/** Reads the tab beside the page, and puts its notes as shorthand in its place. */
async function read(): Promise<void> {
  busy.value = true;
  await notices.tell(async () => {
    const bytes = new TextEncoder().encode(props.text);
    const file = await askFiles((worker): Promise<ReadFile> => worker.read('the text', bytes));
    const part = file.kind === 'parts' ? file.brought.parts[0] : undefined;
    if (!part) throw new Error('The tab could not be read.');
    const { guitar, meter } = props;
    const { sections } = await askFiles((worker) => worker.sections(part, { guitar, meter, cut: 'sections' }));
    emit('write', sections.flatMap(({ phrases }) => phrases.map(({ text }) => text)).join(' |\n'));
  });
  busy.value = false;
}
</script>

<template>
  <p v-if="isTab" class="tab-note" role="status">
    This looks like a text tab.
    <Button size="small" text label="Write it as shorthand" :loading="busy" @click="read" />
  </p>
</template>

<style scoped>
.tab-note {
  margin: 0.3rem 0;
}
</style>
