<script setup lang="ts">
import { RouterLink } from 'vue-router';

/** What an owner does on the first day, in the order in which it is done. */
const STEPS = [
  { to: 'studio', what: 'Say how you teach', why: 'your schools, your week, the days you are closed' },
  { to: 'students', what: 'Enter your students', why: 'one by one, or from a table' },
  { to: 'studio', what: 'Invite them', why: 'a link that works once; they choose a name and a password' },
  { to: 'series', what: 'Begin a series of lessons', why: 'a day of the week, and so many lessons' },
  { to: 'requests', what: 'Write down what they ask for', why: 'each song, solo or lick, with what is wanted of it' },
] as const;
</script>

<template>
  <section aria-label="The first day">
    <h2>The first day</h2>
    <p class="soft">An empty book. This is how to fill it:</p>
    <ol>
      <li v-for="{ to, what, why } in STEPS" :key="what">
        <RouterLink :to="{ name: to }">{{ what }}</RouterLink> <span class="soft">{{ why }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
li {
  margin: 0.4rem 0;
}
</style>
