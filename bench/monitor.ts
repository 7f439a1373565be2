import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

/*
 * Loaded into a server before it starts: tells its parent, when asked, for how long at most the thread that answers
 * readers has stood still since it was asked last.
 */
if (isMainThread && process.send) {
  const delay = monitorEventLoopDelay({ resolution: 1 });
  delay.enable();
  process.on('message', (asked) => {
    if (asked !== 'standstill') return;
    process.send!({ longest: delay.max / 1e6, usual: delay.percentile(99) / 1e6 });
    delay.reset();
  });
  process.channel?.unref();
}
