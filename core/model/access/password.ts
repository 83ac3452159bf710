import { z } from 'zod';

export const shortestPassword = 12;
export const longestPassword = 200;

/** A password that is meant to be one somebody has already; whether it is right is told by nothing but trying it. */
export const PasswordSchema = z
  .string({ error: 'A password is needed.' })
  .min(1, 'A password is needed.')
  .max(longestPassword, `A password can have at most ${longestPassword} characters.`);

/** Why somebody should not take a password, in words; null where nothing speaks against it. */
export function passwordProblem(
  password: string,
  { email, name }: { email: string; name: string },
  isCommon: (word: string) => boolean,
): string | null {
  // Counted as people count: a letter with its accent is one.
  const { length } = [...new Intl.Segmenter('en').segment(password)];
  if (length < shortestPassword) {
    return `A password needs at least ${shortestPassword} characters; this one has ${length}.`;
  }
  if (password.length > longestPassword) return `A password can have at most ${longestPassword} characters.`;
  const plain = password.toLowerCase().normalize('NFKC');
  const repeated = /^(.{1,4}?)\1+$/u.test(plain);
  if (repeated || isCommon(plain)) return 'Many people have this password, so it is tried first. Take another.';
  const own = [email, email.split('@')[0] ?? '', name].map((word) => word.toLowerCase());
  const left = own.filter((word) => word.length > 2).reduce((rest, word) => rest.replaceAll(word, ''), plain);
  if (left.length < shortestPassword / 2) {
    return 'This password is little more than your name or address, which others know. Take another.';
  }
  return null;
}
