import type { Calendar } from '@zonal/core/api';
import { useCallback, useMemo, useState } from 'react';
import type { DeskItem } from './deskDays';

/** The entries that are selected to be changed together, of those in sight. `writable` are calendars that the person may write in. */
export function useSelection(inSight: readonly DeskItem[], writable: readonly Calendar[]) {
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const items = useMemo(() => inSight.filter((item) => keys.has(item.key)), [inSight, keys]);
  const changeable = useMemo(
    () => items.filter((item) => writable.some((c) => c.id === item.entry.calendarId)),
    [items, writable],
  );
  const select = useCallback((changed: readonly string[], isSelected: boolean) => {
    setKeys((before) => {
      const next = new Set(before);
      for (const key of changed) {
        if (isSelected) next.add(key);
        else next.delete(key);
      }
      return next;
    });
  }, []);
  const clear = useCallback(() => setKeys(new Set()), []);
  return { keys, items, changeable, select, clear };
}
