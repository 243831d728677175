/** A live stream as the page hears it; the test says what comes. */
class StandInStream {
  static readonly open = new Set<StandInStream>();
  onmessage: ((event: { data: string }) => void) | null = null;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  readonly readyState = 1;
  private readonly listeners = new Map<string, ((event: { data: string }) => void)[]>();

  constructor(readonly url: string) {
    StandInStream.open.add(this);
  }
  addEventListener(name: string, hear: (event: { data: string }) => void): void {
    this.listeners.set(name, [...(this.listeners.get(name) ?? []), hear]);
  }
  removeEventListener(): void {
    this.listeners.clear();
  }
  close(): void {
    StandInStream.open.delete(this);
  }
  hear(name: string | null, data: string): void {
    if (name === null) this.onmessage?.({ data });
    else this.listeners.get(name)?.forEach((hear) => hear({ data }));
  }
}

/** Puts streams that a test speaks through in place of the browser's, for the tests of a file. */
export function standInStreams(): {
  say(address: string, data: object, name?: string): void;
  addresses(): string[];
} {
  const real = globalThis.EventSource;
  beforeEach(() => {
    StandInStream.open.clear();
    globalThis.EventSource = StandInStream as unknown as typeof EventSource;
  });
  afterEach(() => {
    globalThis.EventSource = real;
  });
  return {
    addresses: () => [...StandInStream.open].map(({ url }) => url),
    say: (address, data, name) => {
      for (const stream of StandInStream.open)
        if (stream.url === address) stream.hear(name ?? null, JSON.stringify(data));
    },
  };
}
