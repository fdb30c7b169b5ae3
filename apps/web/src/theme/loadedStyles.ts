import Base from '@primevue/core/base';

/**
 * Every control that is drawn makes the controls forget that their common style is in the page, so the next one writes it
 * again, and the browser then styles all of the page anew: two milliseconds with most keys that are typed. They forget so
 * that another theme can come; ours never changes, its colours follow the look of the page by themselves.
 */
export function rememberLoadedStyles(): void {
  Base.clearLoadedStyleNames = () => undefined;
}
