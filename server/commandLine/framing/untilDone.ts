const pollMs = 300;

/** Asks how something stands again and again, until it is done. */
export async function untilDone<State>(ask: () => Promise<State>, isDone: (state: State) => boolean): Promise<State> {
  for (;;) {
    const state = await ask();
    if (isDone(state)) return state;
    await new Promise((resolve) => setTimeout(resolve, pollMs));
  }
}
