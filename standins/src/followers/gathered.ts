import { Crowd, type DemoWindow } from './crowd';

/** So often, in milliseconds, it is asked whether the house is there yet. */
const ASK = 1_000;

interface Told {
  readonly slug: string;
  readonly madeOutTo: string;
  readonly listed: boolean;
  readonly feed: string;
  readonly dav: string;
}

/** Waits for the demo's server, then lets the programs outside begin. */
export function gathered(
  house: string,
  pace: number,
): { crowd: () => Crowd | null; close: () => Promise<void> } {
  let crowd: Crowd | null = null;
  let closed = false;
  const timer = setInterval(() => void gather(), ASK);
  const gather = async () => {
    const windows = (await isReady(house)) ? await windowsOf(house).catch(() => null) : null;
    if (!windows || crowd || closed) return;
    clearInterval(timer);
    crowd = new Crowd(windows, Date.now, pace);
    crowd.start();
  };
  return {
    crowd: () => crowd,
    close: async () => {
      closed = true;
      clearInterval(timer);
      await crowd?.close();
    },
  };
}

async function isReady(house: string): Promise<boolean> {
  const answer = await fetch(`${house}/healthz`).catch(() => null);
  return answer?.ok ?? false;
}

/** Asks the house where its windows are, by each key, and by the names of those that are listed. */
export async function windowsOf(house: string): Promise<DemoWindow[]> {
  const answer = await fetch(`${house}/api/demo`);
  if (!answer.ok) throw new Error(`The house answers ${answer.status}.`);
  const { windows } = (await answer.json()) as { windows: readonly Told[] };
  const listed = new Set(windows.filter((w) => w.listed).map((w) => w.slug));
  return [
    ...windows.map(({ slug, madeOutTo, feed, dav }) => ({ slug, madeOutTo, feed, dav })),
    ...[...listed].map((slug) => ({
      slug,
      madeOutTo: null,
      feed: `${house}/feed/${slug}.ics`,
      dav: `${house}/dav/${slug}/`,
    })),
  ];
}
