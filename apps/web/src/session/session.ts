import {
  ROUTES,
  type Acceptance,
  type Beginning,
  type BeginningBody,
  type Me,
  type OwnNames,
  type PasswordChange,
  type SignIn,
  type Welcome,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watchEffect } from 'vue';
import { api, drafts, keptAnswers, line, waitingLines } from '../api/index.ts';

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
      trouble.value = error instanceof Error ? error.message : 'Something went wrong.';
      return false;
    }
    trouble.value = '';
    known.value = true;
    return true;
  }

  /** Whether the studio could not be reached when it was last asked: what is seen then is what was kept on this device. */
  const isCut = ref(false);
  line.onCut = (now) => (isCut.value = now);
  watchEffect(
    () => {
      line.personId = me.value?.id ?? '';
      if (me.value) drafts.belongTo(me.value.id);
    },
    { flush: 'sync' },
  );

  /** Whoever waits for somebody to sign in again; undefined while nobody does. */
  const again = shallowRef<{ readonly promise: Promise<boolean>; readonly resolve: (isIn: boolean) => void }>();
  line.signInAgain = () => {
    if (!me.value) return Promise.resolve(false);
    again.value ??= waiting();
    return again.value.promise;
  };

  /** Signs in again after the session has ended, and lets what waited for it go on. @throws Refused, Unreachable */
  async function signInAgain(password: string): Promise<void> {
    if (me.value) await signIn({ name: me.value.signInName, password });
    again.value?.resolve(true);
    again.value = undefined;
  }

  /** Leaves it: what waited is refused. */
  function stayOut(): void {
    again.value?.resolve(false);
    again.value = undefined;
  }
  const hasEnded = computed(() => again.value !== undefined);

  /** Asks anew, since what is told of the studio has changed. */
  async function refresh(): Promise<void> {
    me.value = await api.me();
  }

  /** Knows who has come in, also when this page is opened again without a line. */
  async function know(entered: Me): Promise<void> {
    me.value = entered;
    known.value = true;
    await keptAnswers.put('', ROUTES.me.path, entered).catch(() => undefined);
  }

  async function signIn(body: SignIn): Promise<void> {
    await know(await api.signIn({ body }));
  }

  /** Whether a studio of one’s own can be begun here. */
  function beginning(): Promise<Beginning> {
    return api.beginning();
  }

  /** Begins one, and enters it as its owner. */
  async function begin(body: BeginningBody): Promise<void> {
    await keptAnswers.forget().catch(() => undefined);
    await know(await api.begin({ body }));
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

  /** How many results and notes of whoever is signed in wait on this device to be sent. */
  async function unsent(): Promise<number> {
    const all = await waitingLines.all().catch(() => []);
    return all.filter(({ personId }) => personId === me.value?.id).length;
  }

  async function signOut(): Promise<void> {
    await api.signOut();
    for (const { id, personId } of await waitingLines.all().catch(() => []))
      if (personId === me.value?.id) await waitingLines.remove(id);
    await leave();
  }

  /** Forgets who was signed in, since they are not any more. */
  async function leave(): Promise<void> {
    await keptAnswers.forget().catch(() => undefined);
    drafts.forget();
    stayOut();
    me.value = null;
  }

  const isTeacher = computed(() => me.value?.role === 'owner' || me.value?.role === 'teacher');
  const isStudent = computed(() => me.value?.role === 'student');
  return {
    me,
    trouble,
    isCut,
    hasEnded,
    signInAgain,
    stayOut,
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
    unsent,
    signOut,
    signOutEverywhere,
    leave,
  };
});

/** Something to wait for, and what ends the waiting. */
function waiting(): { readonly promise: Promise<boolean>; readonly resolve: (isIn: boolean) => void } {
  let resolve: (isIn: boolean) => void = () => undefined;
  const promise = new Promise<boolean>((done) => (resolve = done));
  return { promise, resolve };
}
