/** What the controls remember of the styles that they have put into the page; they ship no types for it. */
declare module '@primevue/core/base' {
  const Base: { clearLoadedStyleNames: () => void };
  export default Base;
}
