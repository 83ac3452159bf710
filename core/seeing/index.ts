export * from './contentBox.ts';
export * from './standingOut.ts';
