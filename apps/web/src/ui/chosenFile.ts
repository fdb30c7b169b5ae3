import type { FileUploadSelectEvent } from 'primevue/fileupload';

/** The file that was chosen last; undefined for none. */
export function chosenFile({ files }: FileUploadSelectEvent): File | undefined {
  const file: unknown = Array.isArray(files) ? files.at(-1) : undefined;
  return file instanceof File ? file : undefined;
}
