import sharp, { type Metadata, type Sharp, type SharpOptions } from 'sharp';

/** What of a header says how its colours are to be read. */
export type ColourHeader = Pick<Metadata, 'depth' | 'space' | 'hasProfile'>;

/**
 * Opens a picture so that what comes out is sRGB with 8 bits a channel. Of 16 bits with a profile the library would keep the
 * numbers of a wider space, or ignore the profile: there the profile is applied at the end instead of the beginning.
 */
export function colourManaged(input: string | Buffer, options: SharpOptions, header: ColourHeader): Sharp {
  const { depth, space, hasProfile } = header;
  if (!hasProfile || depth !== 'ushort' || (space !== 'rgb16' && space !== 'grey16')) {
    return sharp(input, options).toColourspace('srgb');
  }
  return sharp(input, { ...options, ignoreIcc: true })
    .toColourspace(space === 'grey16' ? 'b-w' : 'srgb')
    .withIccProfile('srgb', { attach: false });
}
