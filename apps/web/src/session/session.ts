import type {
  Acceptance,
  Beginning,
  BeginningBody,
  Me,
  OwnNames,
  PasswordChange,
  SignIn,
  Welcome,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api, lastSeen, Refused } from '../api/index.ts';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null);
  const known = ref(false);
  /** Why it is not known who is signed in; empty where it is. */
  const trouble = ref('');

  /** Asks once who is signed in; nobody is no error. Whether it is known then; if not, `trouble` says why. */
  async function load(): Promise<boolean> {
    if (known.value) return true;
    try {
      me.value = await api.me();
    } catch (error) {
      const isNobody = error instanceof Refused && error.status === 401;
      trouble.value = isNobody ? '' : error instanceof Error ? error.message : 'Something went wrong.';
      if (!isNobody) return false;
    }
    trouble.value = '';
    known.value = true;
    return true;
  }

  /** Asks anew, since what is told of the studio has changed. */
  async function refresh(): Promise<void> {
    me.value = await api.me();
  }

  async function signIn(body: SignIn): Promise<void> {
    me.value = await api.signIn({ body });
    known.value = true;
  }

  /** Whether a studio of one’s own can be begun here. */
  function beginning(): Promise<Beginning> {
    return api.beginning();
  }

  /** Begins one, and enters it as its owner. */
  async function begin(body: BeginningBody): Promise<void> {
    await lastSeen.forget().catch(() => undefined);
    me.value = await api.begin({ body });
    known.value = true;
  }

  /** Who is invited by a link. */
  function welcome(token: string): Promise<Welcome> {
    return api.welcome({ token });
  }

  /** Takes an invitation: a name and a password are chosen. */
  async function accept(token: string, body: Acceptance): Promise<void> {
    await api.accept({ token, body });
  }

  async function changeNames(body: OwnNames): Promise<void> {
    me.value = await api.changeNames({ body });
  }

  async function changePassword(body: PasswordChange): Promise<void> {
    await api.changePassword({ body });
  }

  /** Signs out on every device, here too. */
  async function signOutEverywhere(): Promise<void> {
    await api.signOutEverywhere();
    await leave();
  }

  async function signOut(): Promise<void> {
    await api.signOut();
    await leave();
  }

  /** Forgets who was signed in, since they are not any more. */
  async function leave(): Promise<void> {
    await lastSeen.forget().catch(() => undefined);
    me.value = null;
  }

  const isTeacher = computed(() => me.value?.role === 'owner' || me.value?.role === 'teacher');
  const isStudent = computed(() => me.value?.role === 'student');
  return {
    me,
    trouble,
    isTeacher,
    isStudent,
    load,
    refresh,
    signIn,
    beginning,
    begin,
    welcome,
    accept,
    changeNames,
    changePassword,
    signOut,
    signOutEverywhere,
    leave,
  };
});
