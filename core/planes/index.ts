export * from './calmRange.ts';
export * from './kernels.ts';
export * from './planeMemory.ts';
export * from './raster.ts';
