import type { Change, Presence } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { askAgain, pageFonts } from '../../fonts/pageFonts.ts';
import { useDoor } from '../access/door.ts';
import { isChanging, presencePath, tell } from '../client.ts';
import { hearOthers } from './hearing.ts';
import { historyKey } from './history.ts';
import { forgetGone, heardOf, sayMs } from './others.ts';
import { staleAfter } from './stale.ts';

/** This page, among all of those that somebody may have open. */
const pageId = crypto.randomUUID();
/** What comes in a row is looked at together: what this page has saved itself is known here by then. */
const togetherMs = 400;
/** What others have changed is not waited for any longer, however much is being saved here. */
const longestMs = 10_000;
/** A page that has just come has asked for everything already. */
const freshMs = 10_000;

/** Follows what others change, as long as somebody is here. */
export function useTogether(isHere: boolean): void {
  const client = useQueryClient();
  useEffect(() => {
    if (!isHere) return;
    let changes: Change[] = [];
    let looking: ReturnType<typeof setTimeout> | undefined;
    let since = 0;
    const look = () => {
      looking = undefined;
      // Whoever saves much at once hears of each part: what is known here is looked at when all is saved.
      if (isChanging(togetherMs) && performance.now() - since < longestMs) {
        looking = setTimeout(look, togetherMs);
        return;
      }
      // Fonts are kept beside what else is known; where they do not come, whoever sets words asks again.
      if (changes.some(({ kind }) => kind === 'library') && pageFonts.getState().book)
        void askAgain().catch(() => undefined);
      const stale = [historyKey, ...changes.flatMap((one) => staleAfter(client, one))];
      const keys = new Map(stale.map((key) => [key.join(' '), key]));
      changes = [];
      for (const queryKey of keys.values()) void client.invalidateQueries({ queryKey });
    };
    const end = hearOthers((heard) => {
      if (heard.is === 'present') {
        if (heard.present.pageId !== pageId) heardOf(heard.present);
      } else if (heard.is === 'change') {
        changes.push(heard.change);
        if (looking === undefined) {
          since = performance.now();
          looking = setTimeout(look, togetherMs);
        }
      } else if (performance.now() > freshMs) void client.invalidateQueries();
    });
    const forgetting = setInterval(forgetGone, sayMs / 2);
    return () => {
      end();
      clearTimeout(looking);
      clearInterval(forgetting);
    };
  }, [client, isHere]);
}

/** Tells others again and again where somebody is, where people have accounts. */
export function useSayWhere(projectId: string, frameId: string | null, isSaid = true): void {
  const { data: door } = useDoor();
  const isKnown = isSaid && door?.person != null;
  useEffect(() => {
    if (!isKnown) return;
    const where: Presence = { pageId, projectId, frameId };
    // Who is not heard once is heard the next time.
    const say = () => void tell(presencePath, { method: 'POST', body: where }).catch(() => undefined);
    say();
    const saying = setInterval(say, sayMs);
    return () => clearInterval(saying);
  }, [isKnown, projectId, frameId]);
}
