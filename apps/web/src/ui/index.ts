export { default as DoorPage } from './DoorPage.vue';
export { default as FieldRow } from './FieldRow.vue';
export { default as NotOpened } from './NotOpened.vue';
export { default as PlotChart } from './PlotChart.vue';
export { default as ReportPage } from './ReportPage.vue';
export { default as ShareBar } from './ShareBar.vue';
export { token } from './tokens.ts';
export { clockText, dayIn, dayText, daysBetween, isOver, momentText, readClock } from './useDays.ts';
export { useForm } from './useForm.ts';
