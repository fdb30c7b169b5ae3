export { default as CorrectionsButton } from './CorrectionsButton.vue';
export { default as StruckButton } from './StruckButton.vue';
