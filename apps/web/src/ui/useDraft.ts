import { reactive, ref, watch, type Reactive, type Ref } from 'vue';
import { drafts } from '../api/index.ts';

/** What is typed, and kept on this device as long as it is half done. */
export interface Draft<Fields extends object> {
  readonly fields: Reactive<Fields>;
  /** Whether it stands as it was left half done. */
  readonly isBegun: Readonly<Ref<boolean>>;
  /** Keeps nothing of it any longer. */
  readonly giveUp: () => void;
  /** Begins anew from other values. */
  readonly refill: (from: Fields) => void;
}

/**
 * Fields that outlive leaving the page, an ended session and a new version of it.
 *
 * @param name what they are called on this device, with the version of what they change; nothing is kept without one
 */
export function useDraft<Fields extends object>(first: Fields, name?: string): Draft<Fields> {
  let empty = JSON.stringify(first);
  const begun = name === undefined ? undefined : drafts.of(name);
  const fields: Reactive<Fields> = reactive<Fields>({ ...first, ...begun });
  const isBegun = ref(begun !== undefined);
  if (name !== undefined)
    watch(fields, () => {
      if (JSON.stringify(fields) === empty) giveUp();
      else drafts.put(name, fields);
    });

  function giveUp(): void {
    isBegun.value = false;
    // What is watched after this is as it is now.
    empty = JSON.stringify(fields);
    if (name !== undefined) drafts.drop(name);
  }

  function refill(from: Fields): void {
    Object.assign(fields, from);
    giveUp();
  }

  return { fields, isBegun, giveUp, refill };
}
