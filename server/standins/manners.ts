import type { NetworkSheet } from './networkSheet.ts';

/** What becomes of an upload because of how a network behaves as a service. */
export type Mishap = 'none' | 'fails' | 'breaks before it is kept' | 'breaks before it is answered';

/**
 * How one network behaves as a service: how many requests it answers, and which uploads go wrong. By counting, so that what happens
 * to one client alone happens again.
 */
export class Manners {
  private answered: number[] = [];
  private uploads = 0;

  constructor(private readonly manners: NetworkSheet['manners']) {}

  /** Seconds after which a request is answered again; 0 where it is answered now. */
  wait(now: number): number {
    const { most, perSeconds } = this.manners.requests;
    this.answered = this.answered.filter((at) => at > now - perSeconds * 1000);
    const first = this.answered[0];
    if (first === undefined || this.answered.length < most) {
      this.answered.push(now);
      return 0;
    }
    return Math.max(1, Math.ceil((first + perSeconds * 1000 - now) / 1000));
  }

  /** What becomes of the next upload. */
  upload(): Mishap {
    this.uploads += 1;
    const { failsOnceIn, dropsOnceIn } = this.manners;
    if (failsOnceIn > 0 && this.uploads % failsOnceIn === 0) return 'fails';
    if (dropsOnceIn === 0 || this.uploads % dropsOnceIn !== 0) return 'none';
    return (this.uploads / dropsOnceIn) % 2 === 1 ? 'breaks before it is answered' : 'breaks before it is kept';
  }
}
