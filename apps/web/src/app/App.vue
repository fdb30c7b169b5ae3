<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import Badge from 'primevue/badge';
import Button from 'primevue/button';
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch, watchEffect } from 'vue';
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router';
import { isForPage, useLook, useNotices, usePage, useSession } from '../session/index.ts';
import NoticeBar from './NoticeBar.vue';
import PageTrouble from './PageTrouble.vue';
import { titleOf } from './pageTitles.ts';
import GuideLine from '../help/GuideLine.vue';
import { useFresh } from './useFresh.ts';
import { useKeptFocus } from './useKeptFocus.ts';
import { useLostCode } from './useLostCode.ts';
import { useRenewal } from './useRenewal.ts';
import SignInAgain from './SignInAgain.vue';
import SignOutButton from './SignOutButton.vue';
import { NotOpened } from '../ui/index.ts';

const HelpDialog = defineAsyncComponent(() => import('../help/HelpDialog.vue'));

const session = useSession();
const notices = useNotices();
const router = useRouter();
const opened = usePage();
router.afterEach((to, from) => {
  if (to.path === from.path) return;
  opened.begin();
  notices.turnPage();
});
const route = useRoute();
const { chosen: look, dark } = useLook();
watchEffect(() => {
  document.documentElement.dataset['look'] = dark.value ? 'dark' : 'light';
});

const { countOf, total } = useFresh(route);
watchEffect(() => {
  // A handout is called as its file is to be.
  if (route.name !== 'sheet') document.title = titleOf(route.name, total.value, opened.about);
});

const tabs = computed(() =>
  session.isTeacher
    ? [
        { name: 'desk', label: 'Desk' },
        { name: 'requests', label: 'Requests' },
        { name: 'songs', label: 'Songs', holds: ['song', 'sheet', 'pieces'] },
        { name: 'licks', label: 'Licks' },
        { name: 'lesson', label: 'Lesson' },
        { name: 'ledger', label: 'Ledger' },
        { name: 'series', label: 'Series', holds: ['series-report'] },
        { name: 'students', label: 'Students' },
        { name: 'studio', label: 'Studio', holds: ['studio-report', 'book'] },
        { name: 'search', label: 'Search' },
      ]
    : [
        ...(session.isStudent ? [{ name: 'practice', label: 'Practice', holds: ['piece', 'drills'] }] : []),
        { name: 'ledger', label: 'Ledger' },
        { name: 'home', label: 'Lessons', holds: ['series-report'] },
        { name: 'requests', label: 'Requests' },
      ],
);

/** Whether the page shown stands under a tab. */
function isOpen(tab: { readonly name: string; readonly holds?: readonly string[] }): boolean {
  return route.name === tab.name || (tab.holds ?? []).some((name) => route.name === name);
}

useEventListener('keydown', (event) => {
  if (!session.me || !isForPage(event)) return;
  if (event.key === '?') isHelpShown.value = true;
  else if (event.key === '/' && session.isTeacher) void router.push({ name: 'search' });
  else return;
  event.preventDefault();
});
const isHelpShown = ref(false);
const openTab = computed(() => tabs.value.find(isOpen));
/** On a narrow screen more tabs than these fold into a menu; it closes when a page is opened. */
const FEW_TABS = 5;
const isMenuOpen = ref(false);
watch(
  () => route.fullPath,
  () => (isMenuOpen.value = false),
);

const page = useTemplateRef<HTMLElement>('page');
// The keyboard goes along to a page that is opened, unless the page puts it somewhere itself.
watch(
  () => route.name,
  async (_, before) => {
    if (before === undefined) return;
    await nextTick();
    if (!page.value?.contains(document.activeElement)) page.value?.focus({ preventScroll: true });
  },
);

useKeptFocus(page);

/** To the page itself, past the tabs; without a line in the history. */
function skip(): void {
  page.value?.focus();
}

// What a student reads lies on their device from the first day, so that it is there on the first day without a line.
const arePagesKept = ref(false);
useRenewal(() => (arePagesKept.value = true));
watch(
  () => arePagesKept.value && session.isStudent && session.me?.id,
  (student) => {
    if (student) void import('./keepPages.ts').then(({ keepPages }) => keepPages()).catch(() => undefined);
  },
);

/** Goes to the page that was asked for, now that it may be known who is signed in. */
async function openAgain(): Promise<void> {
  if (!(await session.load())) return;
  const { pathname, search, hash } = window.location;
  await router.replace(`${pathname}${search}${hash}`);
}

useLostCode();
</script>

<template>
  <div :class="['book', { bound: session.me }]">
    <a v-if="session.me" class="skip" href="#page" @click.prevent="skip">Skip to the page</a>
    <header v-if="session.me" class="spine">
      <RouterLink to="/" class="title" aria-label="Jam Ledger, to the first page">
        <img src="/mark.svg" alt="" width="30" height="30" />
        <span>Jam Ledger</span>
      </RouterLink>
      <Button
        v-if="tabs.length > FEW_TABS"
        class="menu"
        size="small"
        outlined
        icon="pi pi-bars"
        :label="openTab?.label ?? 'Menu'"
        :aria-label="`Menu, ${openTab?.label ?? 'no tab'} is open`"
        :aria-expanded="isMenuOpen"
        aria-controls="tabs"
        @click="isMenuOpen = !isMenuOpen"
      />
      <nav id="tabs" aria-label="Parts of the book" :class="{ folds: tabs.length > FEW_TABS, folded: !isMenuOpen }">
        <RouterLink v-for="tab in tabs" :key="tab.name" :to="{ name: tab.name }" :class="['tab', { open: isOpen(tab) }]"
          ><span>{{ tab.label }}</span
          ><Badge
            v-if="countOf(tab.name) > 0"
            :value="countOf(tab.name)"
            severity="warn"
            :aria-label="`${countOf(tab.name)} new`"
        /></RouterLink>
      </nav>
      <div class="who">
        <p class="studio">{{ session.me.studio.name }}</p>
        <p v-if="session.me.studio.demo" class="demo">
          The demo: everybody here is made up.
          <RouterLink v-if="session.isTeacher" :to="{ name: 'begin' }">Begin your own</RouterLink>
        </p>
        <p>
          <RouterLink :to="{ name: 'account' }" title="Your password">{{ session.me.name }}</RouterLink>
        </p>
        <div class="small">
          <Button
            size="small"
            text
            :label="dark ? 'Light paper' : 'Dark paper'"
            @click="look = dark ? 'light' : 'dark'"
          />
          <Button size="small" text label="Help" title="?" @click="isHelpShown = true" />
          <SignOutButton />
        </div>
      </div>
    </header>
    <main id="page" ref="page" tabindex="-1">
      <NotOpened v-if="session.trouble" :why="session.trouble" :retry="openAgain" />
      <template v-else>
        <p v-if="session.me && session.isCut" class="cut" role="status">
          The studio cannot be reached; this is how it stood last. Results, takes, notes and the text of a phrase are
          kept on this device and sent later; everything else has to wait.
        </p>
        <GuideLine v-if="session.me" />
        <PageTrouble v-if="opened.trouble" :trouble="opened.trouble" />
        <p v-else-if="opened.isSlow" class="soft slow" role="status">Opening the page …</p>
        <div v-show="!opened.trouble"><RouterView /></div>
      </template>
      <p v-if="session.me?.studio.demo" class="demo foot">The demo: everybody here is made up.</p>
    </main>
    <SignInAgain v-if="session.hasEnded" />
    <HelpDialog v-if="isHelpShown" v-model:open="isHelpShown" :page="route.name" />
    <NoticeBar />
  </div>
</template>

<style scoped>
.book.bound {
  display: grid;
  grid-template-columns: 9.5rem minmax(0, 1fr);
  min-height: 100vh;
}
.spine {
  border-right: 2px solid var(--warm);
  padding: 1rem 0 1rem 0.9rem;
  display: flex;
  flex-direction: column;
  gap: 1.4rem;
  position: sticky;
  top: 0;
  height: 100vh;
}
.title {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  font-family: var(--type-book);
  font-weight: 700;
  font-size: 1.05rem;
  line-height: 1.1;
  color: var(--ink);
  text-decoration: none;
}
nav {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
}
.tab {
  padding: 0.35rem 0.7rem;
  border: 1px solid transparent;
  border-right: 0;
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
  margin-right: -2px;
  display: flex;
  gap: 0.5rem;
  align-items: center;
  justify-content: space-between;
}
.tab:hover {
  background: var(--page-sunk);
}
.tab.open {
  background: var(--page);
  border-color: var(--warm);
  border-right: 2px solid var(--page);
}
.who {
  margin-top: auto;
  font-size: 0.88rem;
  padding-right: 0.6rem;
}
.studio {
  color: var(--ink-soft);
}
.who a {
  display: inline-block;
  min-height: 24px;
}
.demo {
  border-left: 3px solid var(--warm);
  padding-left: 0.4rem;
  margin: 0.3rem 0;
}
.demo.foot {
  display: none;
}
.cut {
  border-left: 2px solid var(--warm);
  padding-left: 0.7rem;
  margin-bottom: 0.8rem;
}
.small {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin-left: -0.5rem;
}
main:focus {
  outline: none;
}
.skip {
  position: absolute;
  left: 0.5rem;
  top: -4rem;
  z-index: 30;
  padding: 0.4rem 0.8rem;
  background: var(--page);
  border: 1px solid var(--ink);
}
.skip:focus {
  top: 0.5rem;
}
main {
  padding: 1.2rem 1.6rem 4rem;
  min-width: 0;
}
.menu {
  display: none;
}
@media (min-width: 721px) and (max-height: 640px) {
  .spine {
    overflow: hidden auto;
  }
}
@media (max-width: 720px) {
  .menu {
    display: inline-flex;
  }
  nav.folds {
    flex-direction: column;
    padding-bottom: 0.5rem;
  }
  nav.folds.folded {
    display: none;
  }
  nav.folds .tab {
    border: 0;
    text-align: left;
    padding: 0.6rem 0.7rem;
  }
  .book.bound {
    display: block;
  }
  .spine {
    position: static;
    height: auto;
    flex-direction: row;
    flex-wrap: wrap;
    gap: 0.5rem 0.8rem;
    align-items: center;
    border-right: 0;
    border-bottom: 2px solid var(--warm);
    padding: 0.6rem 0.8rem 0;
  }
  nav {
    flex-direction: row;
    order: 3;
    width: 100%;
    overflow-x: auto;
  }
  .tab {
    border: 1px solid transparent;
    border-bottom: 0;
    margin: 0 0 -2px;
    flex: 1;
    text-align: center;
  }
  /* What is new stands above the word, in room of its own: the word stays whole, and nothing moves when it comes. */
  nav:not(.folds) .tab {
    position: relative;
    justify-content: center;
    padding: 0.85rem 0.2rem 0.35rem;
    white-space: nowrap;
  }
  nav:not(.folds) .tab .p-badge {
    position: absolute;
    top: 0;
    right: 0.15rem;
    min-width: 1.1rem;
    height: 1.1rem;
    font-size: 0.72rem;
    line-height: 1.1rem;
  }
  .tab.open {
    border-color: var(--warm);
    border-bottom: 2px solid var(--page);
  }
  .who {
    margin: 0 0 0 auto;
    display: flex;
    align-items: center;
    padding: 0;
  }
  .studio,
  .who .demo {
    display: none;
  }
  .demo.foot {
    display: block;
    margin-top: 1.5rem;
  }
  .small {
    flex-direction: row;
    margin-left: 0;
  }
  main {
    padding: 0.9rem 0.8rem 4rem;
  }
}
</style>
