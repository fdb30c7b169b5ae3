import type { Schools } from '@jam-ledger/contract';
import { PICKING_POLICIES, type PickingPolicy } from '@jam-ledger/core/picking';
import { ref, watch, type Ref } from 'vue';
import { POLICY_OF_SCHOOL } from '../../tab/index.ts';
import { pressAlt } from '../../ui/index.ts';

/** How the desk shows a phrase where teachers differ: begun by the school that holds, the other one key away. */
export interface ShownSchools {
  readonly policy: Ref<PickingPolicy>;
  readonly inBox: Ref<boolean>;
  readonly whyFirst: Ref<boolean>;
  /** Takes the key of a school: Alt with p, o or w. */
  readonly press: (event: KeyboardEvent) => void;
}

/** What is shown, and the keys that change it for now; the schools themselves stay as they are. */
export function useSchools(schools: () => Schools): ShownSchools {
  const policy = ref<PickingPolicy>('as given');
  const inBox = ref(false);
  const whyFirst = ref(false);
  watch(
    () => Object.values(schools()).join(),
    () => {
      policy.value = POLICY_OF_SCHOOL[schools().picking];
      inBox.value = schools().position === 'one box';
      whyFirst.value = schools().first === 'why first';
    },
    { immediate: true },
  );

  const keys: Readonly<Record<string, () => void>> = {
    KeyP: () => {
      const next = (PICKING_POLICIES.indexOf(policy.value) + 1) % PICKING_POLICIES.length;
      policy.value = PICKING_POLICIES[next] ?? 'as given';
    },
    KeyO: () => (inBox.value = !inBox.value),
    KeyW: () => (whyFirst.value = !whyFirst.value),
  };

  function press(event: KeyboardEvent): void {
    pressAlt(event, keys);
  }
  return { policy, inBox, whyFirst, press };
}
