export * from './aim.ts';
export * from './budget.ts';
export * from './highestQuality.ts';
export * from './knee.ts';
export * from './lastGood.ts';
export * from './levels.ts';
export * from './lowestQuality.ts';
export * from './qualityCurve.ts';
