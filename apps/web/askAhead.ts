import { join } from 'node:path';
import type { Plugin, Rolldown } from 'vite';

/** Pages that are made of much, where they are, and what they show: the first thing that many open, on slow lines. */
const LARGE_PAGES = [
  { at: '^/songs/([^/]+)$', page: 'songs/SongDeskPage.vue', shows: '/api/transcriptions/$1' },
  { at: '^/practice/([^/]+)$', page: 'practice/PracticePage.vue', shows: '/api/pieces/$1' },
] as const;

/**
 * Lets the browser ask for all the code of a large page, and for what it shows, as soon as it has the address, and not when the code that
 * knows the addresses has run: a small script before everything else names the files, and asks who is signed in. It is as right as the
 * build that wrote it.
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
      const pages = LARGE_PAGES.map(({ at, page, shows }) => {
        const chunk = chunks.find((one) => one.facadeModuleId === join(import.meta.dirname, 'src', page));
        if (!chunk) throw new Error(`${page} is no page of its own`);
        return [at, filesOf(chunk, bundle).filter((file) => !first.has(file)), shows];
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

/**
 * In the browser: asks for the files of the page that is opened, and for answers that are taken from `askedAhead`; for no answers where the
 * code runs already, which made that itself.
 */
function ahead(pages: readonly (readonly [at: string, files: readonly string[], shows: string])[]): void {
  const isLate = 'askedAhead' in window;
  const askedAhead = new Map<string, Promise<Response>>();
  const askFor = (path: string) => {
    if (isLate) return;
    const answer = fetch(path, { credentials: 'same-origin' });
    answer.catch(() => undefined);
    askedAhead.set(path, answer);
  };
  if (!isLate) Object.assign(window, { askedAhead });
  askFor('/api/session');
  for (const [at, files, shows] of pages) {
    if (!new RegExp(at).test(location.pathname)) continue;
    askFor(location.pathname.replace(new RegExp(at), shows));
    const links = files.map((file) => {
      const link = document.createElement('link');
      Object.assign(link, { rel: 'modulepreload', href: `/${file}` });
      return link;
    });
    document.head.append(...links);
  }
}
