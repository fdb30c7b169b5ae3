export { loadMusicFont, musicUrl } from './fonts.ts';
export { MUSIC_FONT } from './pen.ts';
export { laySystems, TabView, type TabFlag } from './tabView.ts';
export type { LaidSystem, TabContent } from './tabView.ts';
export type { StaffSetUp } from './staff.ts';
