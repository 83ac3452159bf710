export * from './differences.ts';
export * from './fields.ts';
export * from './history.ts';
export * from './placeWords.ts';
