/** Where values lie no further apart than so many levels, an area is calm: what moves there, or is added to it, is seen as noise. */
export const calmRange = 6;
