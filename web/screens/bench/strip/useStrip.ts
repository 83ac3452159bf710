import type { Measured, OpenProject, Original, Seen } from '@inkwell/core/model';
import { useMemo, useState } from 'react';
import { seenOf } from '../../../api/library/seen.ts';
import { useDeliveries } from '../../../api/projects/deliveries.ts';
import { lookOf } from './lookOf.ts';
import { afterPress, deliveredFacts, inStrip, type StripFilter, type StripSort } from './stripOrder.ts';

/** Which originals of a project stand in the strip, in which order, and which of them are selected. */
export function useStrip(
  project: OpenProject,
  framed: readonly Original[],
  seen: readonly Seen[] | undefined,
  measured: ReadonlyMap<string, Measured>,
) {
  const { data: deliveries } = useDeliveries(project.id);
  const [order, setOrder] = useState<{ sort: StripSort; filter: StripFilter }>({ sort: 'as chosen', filter: 'all' });
  const [selection, setSelection] = useState<{ ids: ReadonlySet<string>; last: string | null }>({
    ids: new Set(),
    last: null,
  });
  const originals = useMemo(() => {
    const isAsked = order.filter === 'not delivered' || order.filter === 'changed since';
    const delivered = isAsked ? deliveredFacts(project.frames, deliveries ?? [], measured) : () => 'never' as const;
    return inStrip(framed, order, { look: (one) => lookOf(one, seenOf(seen, one.id)).look, delivered });
  }, [framed, order, project.frames, deliveries, measured, seen]);
  // What is not there any more, or not shown, is not meant either.
  const selected = useMemo(
    () => new Set(originals.flatMap(({ id }) => (selection.ids.has(id) ? [id] : []))),
    [originals, selection],
  );
  return {
    originals,
    order,
    setOrder,
    selected,
    select: (ids: ReadonlySet<string>) => setSelection({ ids, last: selection.last }),
    /** A picture was pressed. @returns whether it is to be shown */
    press(id: string, how: { isCtrl: boolean; isShift: boolean }): boolean {
      const ids = afterPress(
        selected,
        originals.map((one) => one.id),
        { id, last: selection.last, ...how },
      );
      // A range grows and shrinks from where it began.
      setSelection({ ids, last: how.isShift ? (selection.last ?? id) : id });
      return !how.isCtrl && !how.isShift;
    },
  };
}
