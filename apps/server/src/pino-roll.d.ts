declare module 'pino-roll' {
  import type { SonicBoom } from 'sonic-boom';

  /** What of its options is used here; its handbook has the rest. */
  interface RollOptions {
    readonly file: string;
    readonly frequency: 'daily' | 'hourly';
    readonly size: string;
    readonly limit: { readonly count: number; readonly removeOtherLogFiles: boolean };
    readonly mkdir: boolean;
    readonly sync: boolean;
    readonly mode: number;
  }
  /** Opens a stream into numbered files. */
  export default function roll(options: RollOptions): Promise<SonicBoom>;
}
