import { chanceOf } from '../apps/server/test/chance.ts';
import { mutated } from '../packages/core/test/formats/mutating.ts';
import { READERS } from '../packages/core/test/formats/readers.ts';

/** A file that takes longer than this to be read was not told off in time, milliseconds. Source: our promise for bad input. */
const MAX_MS = 1000;

/** Reads so many damaged files of each format; what went wrong: thrown, or too slow. */
export function tortureFiles(seed: number, count: number, say: (line: string) => void): readonly string[] {
  const wrong: string[] = [];
  for (const [format, { file, read }] of Object.entries(READERS)) {
    const random = chanceOf(seed);
    let longest = 0;
    for (let index = 0; index < count; index += 1) {
      const broken = mutated(file, random);
      const began = performance.now();
      try {
        read(broken);
      } catch (error) {
        wrong.push(`${format}, file ${index}: ${error instanceof Error ? error.message : String(error)}`);
      }
      longest = Math.max(longest, performance.now() - began);
    }
    say(`  ${format}: ${count} files, the longest took ${Math.round(longest)} ms`);
    if (longest > MAX_MS) wrong.push(`${format}: a file took ${Math.round(longest)} ms`);
  }
  return wrong;
}
