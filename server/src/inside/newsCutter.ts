import type { ChangeNews } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { may, type HouseRights, type Who } from '@zonal/core/rights';
import { UserRow, WindowSourceRow } from '../db/models';
import { rightsOf } from '../people/rights';
import { windowIdsSeen } from '../people/windowsSeen';
import type { InsideViews } from './insideViews';

/** What somebody is to a calendar, and a print of all that they see of it. */
interface State {
  readonly who: Who;
  readonly seen: string;
}

/**
 * Cuts the news for one person: they hear of a calendar where what they see of it, or may do with it, has changed, and of
 * windows that they may see. Nothing else is told, not even that something happened.
 */
export class NewsCutter {
  /** How each calendar was when the person last heard of it. */
  private known: ReadonlyMap<string, State> | null = null;

  constructor(
    private readonly userId: string,
    private readonly views: InsideViews,
  ) {}

  /** Notes how everything is: what changes from here on is told. */
  async begin(): Promise<void> {
    const rights = await this.rights();
    this.known = rights ? await this.statesOf(rights) : new Map();
  }

  /** Returns what the person is told of some news, or null for nothing. */
  async cut(news: ChangeNews): Promise<ChangeNews | null> {
    const rights = await this.rights();
    if (!rights) return null;
    const now = await this.statesOf(rights);
    const before = this.known ?? new Map<string, State>();
    this.known = now;
    const changed = [...new Set([...before.keys(), ...now.keys()])].filter(
      (id) =>
        before.get(id)?.seen !== now.get(id)?.seen ||
        (rights.sight(id) === 'all' && news.calendarIds.includes(id)),
    );
    const seen = news.windowIds.length ? await windowIdsSeen(rights) : [];
    const own = news.windowIds.filter((id) => !seen || seen.includes(id));
    const windowIds = [...new Set([...own, ...(await this.windowsTurned(before, now))])];
    return changed.length || windowIds.length ? { calendarIds: changed, windowIds } : null;
  }

  /**
   * Returns the windows over calendars that the person has just come to look after, or looks after no more: they have seen
   * those until now.
   */
  private async windowsTurned(
    before: ReadonlyMap<string, State>,
    now: ReadonlyMap<string, State>,
  ): Promise<string[]> {
    const sees = (state: State | undefined) => state !== undefined && may('see-windows', state.who);
    const turned = [...new Set([...before.keys(), ...now.keys()])].filter(
      (id) => sees(before.get(id)) !== sees(now.get(id)),
    );
    if (!turned.length) return [];
    const rows = await WindowSourceRow.findAll({ where: { calendarId: turned }, attributes: ['windowId'] });
    return rows.map((r) => r.windowId);
  }

  private async rights(): Promise<HouseRights | null> {
    const user = await UserRow.findByPk(this.userId);
    return user && rightsOf(user);
  }

  private async statesOf(rights: HouseRights): Promise<Map<string, State>> {
    const states = new Map<string, State>();
    for (const id of rights.inSight()) {
      const sight = rights.sight(id);
      const print = sight === 'all' ? '' : await this.printOf(id, rights);
      const who = rights.who(id)!;
      states.set(id, { who, seen: JSON.stringify([who, sight, print]) });
    }
    return states;
  }

  private async printOf(id: string, rights: HouseRights): Promise<string> {
    try {
      return (await this.views.seen(id, rights)).print;
    } catch (error) {
      if (error instanceof Problem) return error.code;
      throw error;
    }
  }
}
