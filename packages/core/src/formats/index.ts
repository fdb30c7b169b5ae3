export { stretchesOf, MAX_WRITTEN } from './song.ts';
export type { PhraseToWrite, SectionToWrite, SongToWrite, Stretch, Voice } from './song.ts';
export type { Brought, BroughtPart } from './brought.ts';
export { sectionsOf } from './fromBrought.ts';
export type { BringOptions, BroughtSection, BroughtSong, Cut } from './fromBrought.ts';
export type { FileProblem } from './xml.ts';
export { writeMusicXml } from './musicxml/write.ts';
export { readMusicXml, readMxl } from './musicxml/read.ts';
