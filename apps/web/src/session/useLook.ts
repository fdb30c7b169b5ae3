import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { computed } from 'vue';

/** The paper the person chose, light or dark; the one the system prefers until they choose. */
export function useLook() {
  const prefersDark = usePreferredDark();
  const chosen = useLocalStorage<'light' | 'dark' | ''>('jam-look', '');
  const dark = computed(() => (chosen.value === '' ? prefersDark.value : chosen.value === 'dark'));
  return { chosen, dark };
}
