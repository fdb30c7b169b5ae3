import JsdomEnvironment from 'jest-environment-jsdom';

/** A page with what browsers have and jsdom lacks; nothing of it is laid out, so nothing ever comes into sight. */
export default class PageEnvironment extends JsdomEnvironment {
  async setup() {
    await super.setup();
    const page = this.global;
    page.structuredClone = structuredClone;
    page.setImmediate = setImmediate;
    page.IntersectionObserver = class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    page.matchMedia = () => ({
      matches: false,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    });
    page.Element.prototype.scrollIntoView = () => undefined;
    // Every sign is 10 pixels wide; how wide they really are is seen in a browser.
    const box = { actualBoundingBoxAscent: 8, actualBoundingBoxDescent: 2, actualBoundingBoxLeft: 0 };
    const measureText = (text) => ({ width: 10 * text.length, actualBoundingBoxRight: 10 * text.length, ...box });
    page.HTMLCanvasElement.prototype.getContext = () => ({ measureText });
  }
}
