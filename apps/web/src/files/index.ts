export { default as DownloadButton } from './DownloadButton.vue';
export { default as DownloadMenu } from './DownloadMenu.vue';
export { askFiles, endFiles } from './askFiles.ts';
export type { ReadFile } from './files.worker.ts';
export { fileName, saveFile } from './saveFile.ts';
export type { Takeable } from './takeable.ts';
