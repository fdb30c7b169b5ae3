export { loadMusicFont } from './fonts.ts';
export { laySystems, TabView, type TabFlag } from './tabView.ts';
export type { LaidSystem, TabContent } from './tabView.ts';
export type { StaffSetUp } from './staff.ts';
