export { default as SchoolChoice } from './SchoolChoice.vue';
export { sayClean, SCHOOL_QUESTIONS, SCHOOL_SAYS, withSchool } from './schoolWords.ts';
