/** What messages come to. */
interface Scope extends EventTarget {
  reportError: (error: unknown) => void;
}

/**
 * Loads what answers the messages of a worker. What is said to it meanwhile is kept, and said again in its order; that
 * nobody will answer, because it could not be loaded, is told to the page as any other end of a worker.
 */
export async function onceLoaded(scope: Scope, load: () => Promise<unknown>): Promise<void> {
  const early: MessageEvent[] = [];
  const keep = (event: Event) => void early.push(event as MessageEvent);
  scope.addEventListener('message', keep);
  try {
    await load();
  } catch (error) {
    scope.reportError(error);
    return;
  } finally {
    scope.removeEventListener('message', keep);
  }
  for (const { data, ports, origin } of early)
    scope.dispatchEvent(new MessageEvent('message', { data: data as unknown, ports: [...ports], origin }));
}
