export * from './choiceOf.ts';
export * from './score.ts';
export * from './search.ts';
export * from './widths.ts';
