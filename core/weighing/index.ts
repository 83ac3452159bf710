export * from './budget.ts';
export * from './highestQuality.ts';
export * from './qualityCurve.ts';
