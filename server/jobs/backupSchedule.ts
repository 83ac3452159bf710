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

  /** @param plan null where another worker may have one; `off` where none is planned any more */
  constructor(
    private readonly url: string,
    private readonly whole: Database,
    private readonly plan: BackupPlan | null | 'off',
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
    if (this.isMaking || this.plan === null) return;
    this.isMaking = true;
    const { url, whole, plan, passphrase, log } = this;
    try {
      if (!this.isKnown) await (plan === 'off' ? dropPlans(whole) : keepPlan(whole, plan));
      this.isKnown = true;
      if (plan === 'off') return;
      const made = await backUpWhenDue({ url, whole, passphrase }, plan);
      if (made) log.info({ files: made.files, bytes: made.bytes }, 'a backup was made');
    } catch (error) {
      log.error({ error }, 'no backup was made');
    } finally {
      this.isMaking = false;
    }
  }
}
