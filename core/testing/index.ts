export * from './lettering.ts';
export * from './samples.ts';
export * from './targets.ts';
