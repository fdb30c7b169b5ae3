<script setup lang="ts">
import type { Mail } from '@jam-ledger/contract';
import { momentText } from '../ui/index.ts';

defineProps<{ mail: readonly Mail[]; zone: string }>();
</script>

<template>
  <section aria-label="Outbox">
    <h2>Outbox</h2>
    <p class="soft">What would be sent. Nothing leaves this machine; hand a link over yourself.</p>
    <p v-if="mail.length === 0" class="soft">Nothing is written yet.</p>
    <ol class="quiet-list">
      <li v-for="one in mail" :key="one.id">
        <details>
          <summary>
            <span class="soft">{{ momentText(one.at, zone) }}</span> to <strong>{{ one.to }}</strong>: {{ one.subject }}
          </summary>
          <p class="body">{{ one.body }}</p>
        </details>
      </li>
    </ol>
  </section>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--rule);
  padding: 0.3rem 0;
}
summary {
  cursor: pointer;
}
.body {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  border-left: 2px solid var(--rule-strong);
  padding-left: 0.7rem;
  margin: 0.3rem 0 0.3rem 0.4rem;
}
</style>
