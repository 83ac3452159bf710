import type { BackupPlan } from '@inkwell/core/model';
import type { Logger } from 'pino';
import { dropPlans, keepPlan } from '../store/backup/backups.ts';
import type { Database } from '../store/database.ts';
import { backUpWhenDue } from '../tasks/backup/backUp.ts';

const lookMs = 5000;

/** Makes backups by itself, one after the other, as often as was said. */
export class BackupSchedule {
  private isMaking = false;
  private isKnown = false;
  private readonly timer: NodeJS.Timeout;

  /** @param plan null where none is made: what was planned before is not any more */
  constructor(
    private readonly url: string,
    private readonly whole: Database,
    private readonly plan: BackupPlan | null,
    private readonly passphrase: string | null,
    private readonly log: Logger,
  ) {
    this.timer = setInterval(() => void this.look(), lookMs);
    void this.look();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private async look(): Promise<void> {
    if (this.isMaking) return;
    this.isMaking = true;
    const { url, whole, plan, passphrase, log } = this;
    try {
      if (!this.isKnown) await (plan ? keepPlan(whole, plan) : dropPlans(whole));
      this.isKnown = true;
      const made = plan && (await backUpWhenDue({ url, whole, passphrase }, plan));
      if (made) log.info({ files: made.files, bytes: made.bytes }, 'a backup was made');
    } catch (error) {
      log.error({ error }, 'no backup was made');
    } finally {
      this.isMaking = false;
    }
  }
}
