/** Milliseconds for the hub to answer. */
const PATIENCE = 10_000;

/**
 * Tells a hub that a topic is new (WebSub section 7 leaves to both sides how: nearly all hubs take `hub.mode=publish`). The hub
 * is set by whoever runs the server, so its address is trusted. Throws where it did not take it.
 */
export async function tellHub(hub: string, topic: string): Promise<void> {
  const answer = await fetch(hub, {
    method: 'POST',
    redirect: 'error',
    signal: AbortSignal.timeout(PATIENCE),
    body: new URLSearchParams({ 'hub.mode': 'publish', 'hub.url': topic, 'hub.topic': topic }),
  });
  await answer.body?.cancel();
  if (!answer.ok) throw new Error(`The hub answered ${answer.status}.`);
}
