import { createHash } from 'node:crypto';
import { transformSync } from '@swc/core';
import { compileScript, parse } from '@vue/compiler-sfc';

/** Lets the unit tests import single-file components: script and template become one module; styles are left out. */
export default {
  process(source, filename) {
    const { descriptor, errors } = parse(source, { filename });
    if (errors.length > 0) throw errors[0];
    const id = createHash('sha256').update(filename).digest('hex').slice(0, 8);
    const { content } = compileScript(descriptor, { id, inlineTemplate: true, fs: undefined });
    return transformSync(content, {
      filename,
      sourceMaps: 'inline',
      jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
      module: { type: 'es6' },
    });
  },
};
