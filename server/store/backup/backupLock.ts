/** Any number that nothing else is locked under. Shared while a backup is made: objects that it needs stay in their store meanwhile. */
export const backupLock = 7_220_415;
