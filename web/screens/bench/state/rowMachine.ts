import equal from 'fast-deep-equal';

/** A row as the server keeps it: `version` grows by one with every save. */
export interface Row {
  id: string;
  version: number;
}

/**
 * Where a row stands on its way to the server. `unanswered` is what was sent without an answer since the last one: nobody knows
 * whether it arrived.
 */
export type Phase<Kept, Settings> =
  | { is: 'clean' }
  | { is: 'waiting' | 'retrying'; unanswered: readonly Settings[] }
  | { is: 'sending'; unanswered: readonly Settings[]; sent: Settings }
  | { is: 'refused'; unanswered: readonly Settings[]; reason: string }
  | { is: 'gone' }
  | { is: 'conflicted'; theirs: Kept };

/** A row that is edited: as the server has it, as it is set now, and where it stands between the two. */
export interface RowState<Kept, Settings> {
  saved: Kept;
  settings: Settings;
  phase: Phase<Kept, Settings>;
}

/**
 * What can happen to a row that is edited, as a state machine that knows neither the network nor the screen. Every event gives
 * the state after it; an event that does not fit the state changes nothing.
 */
export function rowMachine<Kept extends Row, Settings>(settingsOf: (row: Kept) => Settings) {
  type State = RowState<Kept, Settings>;

  const settled = (saved: Kept, settings: Settings, unanswered: readonly Settings[] = []): State => {
    const isClean = unanswered.length === 0 && equal(settings, settingsOf(saved));
    return { saved, settings, phase: isClean ? { is: 'clean' } : { is: 'waiting', unanswered } };
  };

  /** As the server has it. */
  const fresh = (saved: Kept): State => ({ saved, settings: settingsOf(saved), phase: { is: 'clean' } });

  return {
    settled,

    fresh,

    /** A person has set it otherwise. */
    edited({ saved, settings: _, phase }: State, settings: Settings): State {
      const isFree = phase.is === 'clean' || phase.is === 'waiting' || phase.is === 'refused';
      return isFree ? settled(saved, settings, unansweredOf(phase)) : { saved, settings, phase };
    },

    /** It leaves for the server as it is set now. */
    sent(state: State): State {
      const { phase, settings } = state;
      if (phase.is !== 'waiting' && phase.is !== 'retrying') return state;
      return { ...state, phase: { is: 'sending', sent: settings, unanswered: phase.unanswered } };
    },

    /** It was saved, as `saved`. What was changed meanwhile waits to be sent. */
    answered({ settings, phase, ...state }: State, saved: Kept): State {
      if (phase.is !== 'sending') return { ...state, settings, phase };
      const there = settingsOf(saved);
      return settled(saved, equal(settings, phase.sent) && !equal(settings, there) ? there : settings);
    },

    /** It was not saved, because the server has it otherwise: as `theirs`. */
    contradicted(state: State, theirs: Kept): State {
      const { settings, phase } = state;
      if (phase.is !== 'sending') return state;
      const there = settingsOf(theirs);
      // What was sent once and not answered meets itself.
      const isOwn = unansweredOf(phase).some((sent) => equal(sent, there));
      return isOwn || equal(settings, there)
        ? settled(theirs, settings)
        : { ...state, phase: { is: 'conflicted', theirs } };
    },

    /** The server says that it can never be saved like this. What was typed stays, and is not sent again until it is changed. */
    refused(state: State, reason: string): State {
      const { saved, settings, phase } = state;
      if (phase.is !== 'sending') return state;
      const { unanswered } = phase;
      return equal(settings, phase.sent)
        ? { ...state, phase: { is: 'refused', reason, unanswered } }
        : settled(saved, settings, unanswered);
    },

    /** No answer came. */
    unheard(state: State): State {
      const { phase } = state;
      if (phase.is !== 'sending') return state;
      return { ...state, phase: { is: 'retrying', unanswered: unansweredOf(phase) } };
    },

    /** The server has no such row any more: nothing is sent of it. */
    wentMissing: (state: State): State => ({ ...state, phase: { is: 'gone' } }),

    /** The server was asked and has it as `there`. */
    found(state: State, there: Kept): State {
      const { saved, settings, phase } = state;
      switch (phase.is) {
        case 'clean':
          if (equal(there, saved)) return state;
          return there.version >= saved.version ? fresh(there) : state;
        case 'waiting':
        case 'refused':
          // Changes are made on the version that was seen: what is newer is found out when they are sent.
          return equal(settings, settingsOf(there)) && there.version >= saved.version
            ? settled(there, settings)
            : state;
        case 'gone':
          return there.version >= saved.version ? settled(there, settings) : state;
        case 'conflicted':
          if (there.version <= phase.theirs.version) return state;
          return equal(settings, settingsOf(there))
            ? settled(there, settings)
            : { ...state, phase: { is: 'conflicted', theirs: there } };
        default:
          // Until the answer is here, nobody can tell whether the row holds what was sent.
          return state;
      }
    },

    /** What was set here is to be saved on top of what the server has. */
    keptMine(state: State): State {
      return state.phase.is === 'conflicted' ? settled(state.phase.theirs, state.settings) : state;
    },

    /** What the server has is taken instead of what was set here, after a conflict or a refusal. */
    tookTheirs(state: State): State {
      const { saved, phase } = state;
      if (phase.is === 'conflicted') return settled(phase.theirs, settingsOf(phase.theirs));
      return phase.is === 'refused' ? settled(saved, settingsOf(saved), phase.unanswered) : state;
    },
  };
}

/** What was sent of a row and not answered. */
export function unansweredOf<Kept, Settings>(phase: Phase<Kept, Settings>): readonly Settings[] {
  if (!('unanswered' in phase)) return [];
  return phase.is === 'sending' ? [...phase.unanswered, phase.sent] : phase.unanswered;
}
