import type { Origin, Words } from '@inkwell/core/model';
import type { EncodingPlan } from '@inkwell/core/planning';
import type { Exif, Sharp } from 'sharp';

/** Gives a file what its plan says beside the pixels: words as EXIF and as IPTC Core in XMP, and a small sRGB profile. */
export function withMetadata(
  picture: Sharp,
  { profile, words, origin }: Pick<EncodingPlan, 'profile' | 'words' | 'origin'>,
): Sharp {
  let written = picture;
  if (profile) written = written.withIccProfile('srgb');
  const exif = exifOf(words, origin);
  if (exif) written = written.withExif(exif);
  if (words) written = written.withXmp(xmpOf(words));
  return written;
}

/** EXIF is text of ASCII letters; what it cannot hold stands in the XMP, which can hold everything. */
const ascii = (text: string) => text.normalize('NFKD').replace(/[^\x20-\x7e]/g, '');

function exifOf(words: Words | null, { position, device }: Origin): Exif | null {
  const first: Record<string, string> = {};
  const set = (tag: string, text: string | undefined) => {
    const plain = ascii(text ?? '');
    if (plain !== '') first[tag] = plain;
  };
  set('Artist', words?.credit);
  set('Copyright', words?.copyright);
  set('ImageDescription', words?.altText);
  set('Make', device?.make);
  set('Model', device?.model);
  const second: Record<string, string> = {
    ...(device?.serial ? { BodySerialNumber: ascii(device.serial) } : {}),
    ...(device?.lensSerial ? { LensSerialNumber: ascii(device.lensSerial) } : {}),
  };
  const where: Record<string, string> = position
    ? {
        GPSLatitudeRef: position.latitude < 0 ? 'S' : 'N',
        GPSLatitude: sexagesimal(position.latitude),
        GPSLongitudeRef: position.longitude < 0 ? 'W' : 'E',
        GPSLongitude: sexagesimal(position.longitude),
      }
    : {};
  const all = { IFD0: first, IFD2: second, IFD3: where };
  const used = Object.entries(all).filter(([, tags]) => Object.keys(tags).length > 0);
  return used.length > 0 ? Object.fromEntries(used) : null;
}

/** Degrees, minutes and seconds as three fractions, the seconds to a thousandth: three centimetres. */
function sexagesimal(degrees: number): string {
  const thousandths = Math.round(Math.abs(degrees) * 3_600_000);
  const minutes = Math.floor(thousandths / 60_000);
  return `${Math.floor(minutes / 60)}/1 ${minutes % 60}/1 ${thousandths % 60_000}/1000`;
}

const escaped = (text: string) =>
  text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`).replace(/[^\P{Cc}\t\n\r]/gu, '');

/** The properties of Dublin Core and IPTC Core (Photo Metadata Standard 2023) for credit, copyright and alternative text. */
function xmpOf({ credit, copyright, altText }: Words): string {
  const language = (name: string, text: string) =>
    `<${name}><rdf:Alt><rdf:li xml:lang="x-default">${escaped(text)}</rdf:li></rdf:Alt></${name}>`;
  const lines = [
    ...(credit ? [`<dc:creator><rdf:Seq><rdf:li>${escaped(credit)}</rdf:li></rdf:Seq></dc:creator>`] : []),
    ...(copyright ? [language('dc:rights', copyright)] : []),
    ...(altText ? [language('Iptc4xmpCore:AltTextAccessibility', altText)] : []),
  ];
  return (
    '<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>' +
    '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" ' +
    'xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">' +
    `${lines.join('')}</rdf:Description></rdf:RDF><?xpacket end="r"?>`
  );
}
