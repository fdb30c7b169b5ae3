export { loadMusicFont } from './fonts.ts';
export { TabView, type TabFlag } from './tabView.ts';
export type { TabContent } from './tabView.ts';
export type { StaffSetUp } from './staff.ts';
