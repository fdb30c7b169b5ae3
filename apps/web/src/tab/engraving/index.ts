export { loadMusicFont, musicUrl } from './fonts.ts';
export { loadNotation, notation } from './notation.ts';
export { MUSIC_FONT, piecesOf } from './pen.ts';
export { laySystems, TabView, type TabFlag } from './tabView.ts';
export type { LaidSystem, TabContent } from './tabView.ts';
export type { StaffSetUp } from './staff.ts';
