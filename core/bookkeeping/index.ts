export * from './differences.ts';
export * from './fields.ts';
export * from './history.ts';
export * from './placeWords.ts';
export * from './problems.ts';
export * from './search.ts';
