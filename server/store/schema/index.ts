export * from './book.ts';
export * from './columns.ts';
export * from './deliveries.ts';
export * from './dryRuns.ts';
export * from './library.ts';
export * from './measured.ts';
export * from './projects.ts';
export * from './work.ts';
