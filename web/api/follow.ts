/**
 * Follows a stream of events as long as the page is shown. A page that is left, but kept by the browser to come back to,
 * would otherwise hold its connection, and few are allowed to one server: those of the next pages would wait for ever.
 * @param onBack when the page is shown again: what was missed is to be asked for
 * @returns how it is ended
 */
export function follow(
  address: string,
  listen: (source: EventSource) => void,
  onBack: () => void = () => undefined,
): () => void {
  let source: EventSource | null = null;
  function open(): void {
    source = new EventSource(address);
    listen(source);
  }
  function close(): void {
    source?.close();
    source = null;
  }
  function onShow({ persisted }: PageTransitionEvent): void {
    if (!persisted || source) return;
    open();
    onBack();
  }
  open();
  window.addEventListener('pagehide', close);
  window.addEventListener('pageshow', onShow);
  return () => {
    close();
    window.removeEventListener('pagehide', close);
    window.removeEventListener('pageshow', onShow);
  };
}
