import { HIGHEST_FRET } from '../pitch/index.ts';
import type { Setting } from './model.ts';
import { readMeter } from './values.ts';

/** Slowest and fastest tempo that can be written, quarter notes a minute. Our choice. */
export const TEMPO_RANGE = { min: 20, max: 400 } as const;

/** A place of the recording, minutes and seconds. */
const STAMP = /^@(\d{1,3}):(\d{2}(?:\.\d{1,3})?)$/;

const SETTING_WANTS: Readonly<Record<string, string>> = {
  meter: 'a meter such as 3/4',
  tempo: `${TEMPO_RANGE.min} to ${TEMPO_RANGE.max} quarter notes a minute`,
  feel: 'straight or swing',
  box: `a fret, 1 to ${HIGHEST_FRET}`,
};

/** What a word sets, or in a sentence what it wants; neither where it is no setting at all. */
export function readSetting(word: string): { readonly setting?: Setting; readonly wants?: string } {
  if (word === 'pickup') return { setting: { name: 'pickup' } };
  const [, name, rest = ''] = /^(meter|tempo|feel|box)=(.*)$/.exec(word) ?? [];
  if (name === undefined) return {};
  const setting = valueOf(name, rest);
  return setting ? { setting } : { wants: `The setting ${name}= wants ${SETTING_WANTS[name]}.` };
}

function valueOf(name: string, text: string): Setting | undefined {
  if (name === 'meter') {
    const meter = readMeter(text);
    return meter && { name, meter };
  }
  if (name === 'tempo') {
    const tempo = /^\d{1,3}(\.\d{1,2})?$/.test(text) ? Number(text) : NaN;
    return tempo >= TEMPO_RANGE.min && tempo <= TEMPO_RANGE.max ? { name, tempo } : undefined;
  }
  if (name === 'box') {
    const fret = /^\d{1,2}$/.test(text) ? Number(text) : NaN;
    return fret >= 1 && fret <= HIGHEST_FRET ? { name, fret } : undefined;
  }
  return text === 'swing' || text === 'straight' ? { name: 'feel', feel: text } : undefined;
}

/** The second of the recording that a stamp, `@1:09.5`, says; undefined where it is no time. */
export function readStamp(word: string): number | undefined {
  const [, minutes, rest] = STAMP.exec(word) ?? [];
  return minutes === undefined || Number(rest) >= 60 ? undefined : Number(minutes) * 60 + Number(rest);
}
