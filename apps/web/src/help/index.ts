export { default as GuideLine } from './GuideLine.vue';
export { default as HelpDialog } from './HelpDialog.vue';
