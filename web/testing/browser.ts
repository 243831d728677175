/** What browsers have and jsdom has not; Mantine and the router ask for it when they are loaded. */
import { TextDecoder, TextEncoder } from 'node:util';
import { configure } from '@testing-library/dom';
import { startMessages } from '../messages/i18n';

Object.assign(globalThis, { TextEncoder, TextDecoder });
class Observer {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
Object.assign(window, {
  ResizeObserver: Observer,
  IntersectionObserver: Observer,
  matchMedia: (media: string) => ({
    ...{ matches: false, media, onchange: null },
    ...{ addEventListener: () => undefined, removeEventListener: () => undefined },
    ...{ addListener: () => undefined, removeListener: () => undefined, dispatchEvent: () => false },
  }),
});
// A text area that grows measures itself anew once fonts are there.
Object.assign(document, {
  fonts: { addEventListener: () => undefined, removeEventListener: () => undefined },
});
Element.prototype.scrollIntoView = () => undefined;
// Parts of the application add their words as they are loaded.
await startMessages();
// A slow machine takes longer than a second for a page.
configure({ asyncUtilTimeout: 10_000 });
