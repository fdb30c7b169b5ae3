/** What the tests and figures use of verovio, which has no types of its own. */
declare module 'verovio/wasm' {
  export default function createVerovioModule(): Promise<object>;
}
declare module 'verovio/esm' {
  export const LOG_OFF: number;
  export function enableLog(level: number, module: object): void;
  export class VerovioToolkit {
    constructor(module: object);
    loadData(data: string): number | boolean;
    getPageCount(): number;
    renderToSVG(page: number): string;
    /** Onsets in quarter notes from the beginning. */
    renderToTimemap(options: object): readonly { readonly on?: readonly string[]; readonly qstamp: number }[];
    getMIDIValuesForElement(id: string): { readonly pitch: number; readonly time: number; readonly duration: number };
  }
}
