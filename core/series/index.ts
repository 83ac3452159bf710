export * from './layRows.ts';
export * from './meanings.ts';
export * from './pictureFinder.ts';
export * from './placeFinder.ts';
export * from './readSeries.ts';
export * from './tableText.ts';
export * from './wordsOn.ts';
