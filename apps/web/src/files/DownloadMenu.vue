<script setup lang="ts">
import Button from 'primevue/button';
import Menu from 'primevue/menu';
import type { MenuItem } from 'primevue/menuitem';
import { useTemplateRef } from 'vue';

defineProps<{ items: readonly MenuItem[] }>();
const menu = useTemplateRef('menu');
</script>

<template>
  <Button size="small" text icon="pi pi-download" label="Download" aria-haspopup="true" @click="menu?.toggle($event)" />
  <Menu ref="menu" :model="[...items]" popup />
</template>
