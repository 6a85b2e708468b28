/** Longest piece of work without a pause, milliseconds. */
const PIECE = 40;

/**
 * Lets others in between pieces of long work: building a heavy scene must not keep a worker from drawing the one
 * that it still shows.
 */
export class Breath {
  private since = performance.now();

  async take(): Promise<void> {
    if (performance.now() - this.since < PIECE) return;
    await pause();
    this.since = performance.now();
  }
}

/** Lets waiting messages go first. A timer would do, but browsers slow down timers that follow each other. */
const pause = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
