export * from './samples.ts';
export * from './targets.ts';
