/** The same act, of which one call begins when the one before it has ended; the first begins at once. Errors stay with their call. */
export function oneAfterAnother<Arguments extends readonly unknown[], Result>(
  act: (...given: Arguments) => Promise<Result>,
): (...given: Arguments) => Promise<Result> {
  let last: Promise<unknown> | undefined;
  return (...given) => {
    const next = last ? last.then(() => act(...given)) : act(...given);
    const settled = next.then(
      () => undefined,
      () => undefined,
    );
    last = settled;
    void settled.then(() => {
      if (last === settled) last = undefined;
    });
    return next;
  };
}
