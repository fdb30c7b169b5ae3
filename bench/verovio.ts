import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { writeMusicXml } from '@jam-ledger/core/formats';
import { songOf } from '../packages/core/test/formats/songs.ts';

/** Verovio, which says nothing. */
export async function quietVerovio(): Promise<VerovioToolkit> {
  const module = await createVerovioModule();
  enableLog(LOG_OFF, module);
  return new VerovioToolkit(module);
}

/** Verovio with the notes of a text, as MusicXML: it reads them, or reads and engraves them, all pages. */
export async function verovioWith(text: string) {
  const toolkit = await quietVerovio();
  const xml = writeMusicXml(songOf([text]));
  const load = () => void toolkit.loadData(xml);
  const engrave = () => {
    load();
    for (let page = 1; page <= toolkit.getPageCount(); page += 1) toolkit.renderToSVG(page);
  };
  return { load, engrave };
}
