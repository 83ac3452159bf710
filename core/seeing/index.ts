export * from './contentBox.ts';
