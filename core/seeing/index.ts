export * from './contentBox.ts';
export * from './detail.ts';
export * from './standingOut.ts';
