import { z } from 'zod';

/** Formats that a place may take, and a frame can be delivered in. */
export const ImageFormatSchema = z.enum(['jpeg', 'png', 'webp', 'avif']);
export type ImageFormat = z.infer<typeof ImageFormatSchema>;

export const formatLabel: Record<ImageFormat, string> = { jpeg: 'JPEG', png: 'PNG', webp: 'WebP', avif: 'AVIF' };
export const formatExtension: Record<ImageFormat, string> = { jpeg: 'jpg', png: 'png', webp: 'webp', avif: 'avif' };

/** Whether a format can keep every pixel as it is. */
export const isLossless = (format: ImageFormat): boolean => format === 'png';

/** Whether a format can show what lies behind a picture. */
export const carriesTransparency = (format: ImageFormat): boolean => format !== 'jpeg';
