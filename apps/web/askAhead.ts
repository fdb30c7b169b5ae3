import { join } from 'node:path';
import type { Plugin, Rolldown } from 'vite';

/** Pages that are made of much, and where they are: the first thing that many open, on slow lines. */
const LARGE_PAGES = [
  { at: '^/songs/[^/]+$', page: 'songs/SongDeskPage.vue' },
  { at: '^/practice/[^/]+$', page: 'practice/PracticePage.vue' },
] as const;

/**
 * Lets the browser ask for all the code of a large page as soon as it has the address, and not when the code that knows the addresses has
 * run: a small script before everything else names the files. It is as right as the build that wrote it.
 */
export function askAhead(): Plugin {
  let script = '';
  return {
    name: 'ask-ahead',
    apply: 'build',
    // Before the page is written that names the script.
    enforce: 'pre',
    generateBundle(_options, bundle) {
      const chunks = Object.values(bundle).filter((one) => one.type === 'chunk');
      const first = new Set(chunks.filter(({ isEntry }) => isEntry).flatMap((one) => filesOf(one, bundle)));
      const pages = LARGE_PAGES.map(({ at, page }) => {
        const chunk = chunks.find((one) => one.facadeModuleId === join(import.meta.dirname, 'src', page));
        if (!chunk) throw new Error(`${page} is no page of its own`);
        return [at, filesOf(chunk, bundle).filter((file) => !first.has(file))];
      });
      const source = `(${ahead.toString()})(${JSON.stringify(pages)});\n`;
      script = this.getFileName(this.emitFile({ type: 'asset', name: 'ahead.js', source }));
    },
    transformIndexHtml: () => [{ tag: 'script', attrs: { async: true, src: `/${script}` }, injectTo: 'head-prepend' }],
  };
}

/** The files of a chunk and of all that it cannot be without. */
function filesOf(chunk: Rolldown.OutputChunk, bundle: Rolldown.OutputBundle): readonly string[] {
  const files = new Set([chunk.fileName]);
  for (const file of files) {
    const one = bundle[file];
    if (one?.type === 'chunk') for (const next of one.imports) files.add(next);
  }
  return [...files];
}

/** In the browser: asks for the files of the page that is opened. */
function ahead(pages: readonly (readonly [at: string, files: readonly string[]])[]): void {
  for (const [at, files] of pages) {
    if (!new RegExp(at).test(location.pathname)) continue;
    const links = files.map((file) => {
      const link = document.createElement('link');
      Object.assign(link, { rel: 'modulepreload', href: `/${file}` });
      return link;
    });
    document.head.append(...links);
  }
}
