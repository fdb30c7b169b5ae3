import type { Me, SignIn } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api, lastSeen, Refused } from '../api/index.ts';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null);
  const known = ref(false);

  /** Asks once who is signed in; nobody is no error. */
  async function load(): Promise<void> {
    if (known.value) return;
    try {
      me.value = await api.me();
    } catch (error) {
      if (!(error instanceof Refused) || error.status !== 401) throw error;
    }
    known.value = true;
  }

  /** Asks anew, since what is told of the studio has changed. */
  async function refresh(): Promise<void> {
    me.value = await api.me();
  }

  async function signIn(body: SignIn): Promise<void> {
    me.value = await api.signIn(body);
    known.value = true;
  }

  async function signOut(): Promise<void> {
    await api.signOut();
    await lastSeen.forget().catch(() => undefined);
    me.value = null;
  }

  const isTeacher = computed(() => me.value?.role === 'owner' || me.value?.role === 'teacher');
  const isStudent = computed(() => me.value?.role === 'student');
  return { me, isTeacher, isStudent, load, refresh, signIn, signOut };
});
