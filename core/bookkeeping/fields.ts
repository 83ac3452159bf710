import { formatLabel, NumberSchema, type Place, type PlaceNumber, type SheetContent } from '../model/index.ts';
import {
  areaWords,
  dimensionsWords,
  formatsWords,
  groupWords,
  limitWords,
  otherDimensionsWords,
  otherLimitsWords,
  purposeWords,
  shapeWords,
  wishesWords,
} from './placeWords.ts';

/** What a sheet says of itself, field by field, as forms, files and errors call it. */
export type SheetField = Exclude<keyof SheetContent, 'places'>;
/** The same of a place. */
export type PlaceField = 'name' | 'purpose' | PlaceNumber | 'note' | 'isAway' | 'provenance';

interface Field<Of> {
  label: string;
  /** What it says in words; empty where it says nothing. */
  words: (of: Of) => string;
  /** What two of it are compared by. */
  value: (of: Of) => unknown;
}

const joined = (...parts: string[]) => parts.filter((part) => part !== '').join('; ');

/** Of a place, in the order of its form. */
export const placeFields: Record<PlaceField, Field<Place>> = {
  name: { label: 'Name', words: ({ name }) => name, value: ({ name }) => name },
  purpose: { label: 'Purpose', words: ({ purpose }) => purposeWords[purpose], value: ({ purpose }) => purpose },
  dimensions: {
    label: 'Dimensions',
    words: (place) => joined(`${dimensionsWords(place)} px`, otherDimensionsWords(place)),
    value: ({ width, height, otherDimensions, multipleOf, mostPixels }) => ({
      width,
      height,
      otherDimensions,
      multipleOf,
      mostPixels,
    }),
  },
  formats: { label: 'Formats it takes', words: formatsWords, value: ({ formats }) => [...formats].sort() },
  limit: {
    label: 'Upload limit',
    words: (place) => joined(limitWords(place), otherLimitsWords(place)),
    value: ({ limit, formatLimits = {}, postLimit }) => ({ limit, formatLimits, postLimit }),
  },
  shape: { label: 'Shape', words: ({ shape }) => shapeWords[shape], value: ({ shape }) => shape },
  covered: {
    label: 'Covered areas',
    words: ({ covered }) => covered.map(areaWords).join('; '),
    value: ({ covered }) => covered,
  },
  shownPart: {
    label: 'Part that is always shown',
    words: ({ shownPart }) => (shownPart ? areaWords(shownPart) : ''),
    value: ({ shownPart }) => shownPart,
  },
  shownWidths: {
    label: 'Shown how wide',
    words: ({ shownWidths }) => (shownWidths.length > 0 ? `${shownWidths.join(', ')} px` : ''),
    value: ({ shownWidths }) => shownWidths,
  },
  group: { label: 'In pieces', words: ({ group }) => (group ? groupWords(group) : ''), value: ({ group }) => group },
  wishes: { label: 'Recommended', words: wishesWords, value: ({ wishes }) => wishes },
  note: { label: 'Note', words: ({ note = '' }) => note, value: ({ note = '' }) => note },
  isAway: {
    label: 'Put away',
    words: ({ isAway }) => (isAway ? 'put away' : 'offered'),
    value: ({ isAway }) => isAway ?? false,
  },
  provenance: {
    label: 'Dates and sources',
    words: ({ provenance = {} }) => {
      const dates = Object.values(provenance).map(({ checkedOn }) => checkedOn);
      return dates.length > 0 ? `${dates.length} of its own, the newest of ${dates.sort().at(-1)}` : 'as its sheet';
    },
    value: ({ provenance = {} }) => provenance,
  },
};

/** Of a sheet, in the order of its form. */
export const sheetFields: Record<SheetField, Field<SheetContent>> = {
  name: { label: 'Name of the sheet', words: ({ name }) => name, value: ({ name }) => name },
  kind: { label: 'Kind of network', words: ({ kind }) => kind, value: ({ kind }) => kind },
  checkedOn: { label: 'Checked on', words: ({ checkedOn }) => checkedOn, value: ({ checkedOn }) => checkedOn },
  source: { label: 'Source', words: ({ source }) => source, value: ({ source }) => source },
  recheckDays: {
    label: 'Check again',
    words: ({ recheckDays }) => `after ${recheckDays} days`,
    value: ({ recheckDays }) => recheckDays,
  },
  sureness: {
    label: 'How sure',
    words: ({ sureness }) => sureness,
    value: ({ sureness }) => sureness,
  },
  afterUpload: {
    label: 'After an upload',
    words: ({ afterUpload: after }) =>
      after
        ? `scaled to a long edge of ${after.longEdge} px by ${after.kernel}, ${formatLabel[after.format]} ${after.quality}, ` +
          `colour ${after.chroma}, ${after.colours === 'converted' ? 'colours converted' : 'profile dropped'}`
        : '',
    value: ({ afterUpload }) => afterUpload,
  },
  otherSides: {
    label: 'Other dimensions',
    words: ({ otherSides }) =>
      otherSides ? `sides from ${otherSides.least} to ${otherSides.most} px are taken too` : '',
    value: ({ otherSides }) => otherSides,
  },
};

/** Fields by which a file of a place is made: the others are about words, wishes, dates and what is offered. */
export const isAboutFiles = (field: PlaceField): boolean => field !== 'wishes' && NumberSchema.safeParse(field).success;
