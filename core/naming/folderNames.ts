import { isReserved } from './reserved.ts';

/** Folder names are cut to so many characters, so that whole paths stay short of what old systems take. */
const longestFolder = 48;

/** What no file system has in a name, or what another would read as something else. */
const forbidden = /[<>:"/\\|?*\p{Cc}\p{Cf}]+/gu;

/** A text as the name of a folder: readable, and taken by every file system. @param otherwise where nothing of it is left */
export function folderName(text: string, otherwise: string): string {
  const words = text.normalize('NFC').replace(forbidden, ' ').replace(/\s+/g, ' ');
  // Some systems drop dots and blanks at the end, so that two names would become one.
  const cut = [...words]
    .slice(0, longestFolder)
    .join('')
    .replace(/^[\s.]+|[\s.]+$/g, '');
  const name = cut === '' ? otherwise : cut;
  return isReserved(name) ? `${name} folder` : name;
}

/** The names, with those that are alike where case is ignored numbered from 2. @param numbered a name with a number */
export function apart(
  names: readonly string[],
  numbered = (name: string, number: number) => `${name} ${number}`,
): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    let free = name;
    for (let number = 2; taken.has(free.toLowerCase()); number += 1) free = numbered(name, number);
    taken.add(free.toLowerCase());
    return free;
  });
}
