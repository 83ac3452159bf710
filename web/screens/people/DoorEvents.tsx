import type { DoorEvent, DoorEventKind } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { useDoorEvents } from '../../api/access/people.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ago } from '../../parts/when.ts';

/** So many are shown before somebody asks for more. */
const atFirst = 10;

/** What happened, as a sentence. @param about whom or what it was done to */
const sentences: Record<DoorEventKind, (who: string, about: string) => string> = {
  'signed in': (who) => `${who} signed in`,
  refused: (_, about) =>
    about === '' ? 'Somebody tried an address that has no account' : `A wrong password or code was tried for ${about}`,
  'held up': () => 'Too many attempts were made, and are refused for a while',
  'signed out': (who) => `${who} signed out`,
  'sessions ended': (who) => `${who} signed out of other browsers`,
  'account made': (who) => `${who} made an account`,
  joined: (who) => `${who} joined`,
  left: (who, about) => `${who} took ${about} out of this workspace`,
  'workspace made': (who, about) => `${who} made the workspace ${about}`,
  'workspace named': (who, about) => `${who} gave this workspace the name ${about}`,
  'review link made': (who, about) => `${who} made a review link for ${about}`,
  'review link withdrawn': (who, about) => `${who} withdrew the review link for ${about}`,
  invited: (who, about) => `${who} invited ${about}`,
  'invitation withdrawn': (who, about) => `${who} withdrew the invitation of ${about}`,
  'role changed': (who, about) => `${who} changed the role of ${about}`,
  'account taken away': (who, about) => `${who} took the account of ${about} away`,
  'password changed': (who) => `${who} changed the password`,
  'password asked for': (who, about) => `${who} asked for a new password for ${about}`,
  'second factor set up': (who) => `${who} set up a second factor`,
  'second factor dropped': (who, about) => `${who} dropped the second factor${about === '' ? '' : ` of ${about}`}`,
  'share changed': (who, about) => `${who} changed the share of ${about}`,
  'token made': (who, about) => `${who} made the token ${about}`,
  'token withdrawn': (who, about) => `${who} withdrew the token ${about}`,
};

const sentenceOf = ({ kind, who, about, address }: DoorEvent) =>
  sentences[kind](who ?? (address === null ? 'Somebody at the machine' : 'Somebody'), about ?? '');

/** Who came in, was refused, or changed who may come in. */
export function DoorEvents() {
  const query = useDoorEvents();
  const [areAll, setAreAll] = useState(false);
  return (
    <section className="sheet page-part" aria-labelledby="events-title">
      <h2 id="events-title">What happened at the door</h2>
      <p className="quiet small">Kept for half a year, and seen by owners alone.</p>
      <Listed query={query} none="Nothing happened yet.">
        {(all) => (
          <>
            <ol className="door-events">
              {(areAll ? all : all.slice(0, atFirst)).map((event) => (
                <li key={event.id}>
                  {sentenceOf(event)}{' '}
                  <span className="quiet small">
                    <time dateTime={event.at} title={new Date(event.at).toLocaleString('en-GB')}>
                      {ago(event.at)}
                    </time>
                    {event.address === null ? '' : `, from ${event.address}`}
                  </span>
                </li>
              ))}
            </ol>
            {!areAll && all.length > atFirst && (
              <Button onClick={() => setAreAll(true)}>Show {all.length - atFirst} more</Button>
            )}
          </>
        )}
      </Listed>
    </section>
  );
}
