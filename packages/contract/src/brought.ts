import type { Layer } from './phrases.ts';

/** Most sections of one file, and phrases of one section, that are brought in at once. */
export const BROUGHT_LIMITS = { sections: 200, phrases: 200 } as const;

/** A section that comes in from a file, with its phrases as shorthand. */
export interface BroughtSectionBody {
  readonly label: string;
  readonly role: string;
  readonly bars: number;
  readonly times: number;
  readonly phrases: readonly { readonly name: string; readonly text: string }[];
}

/** What comes in from a file, as drafts behind what is there. */
export interface BroughtBody {
  /** Where it came from, in words: “from tune.musicxml”. */
  readonly from: string;
  readonly layer: Layer;
  readonly sections: readonly BroughtSectionBody[];
}

/** Sections that are struck out together, or put back. */
export interface SectionsStruck {
  readonly sections: readonly { readonly id: string; readonly version: number }[];
  readonly struck: boolean;
}
