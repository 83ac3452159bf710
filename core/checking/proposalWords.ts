import type { Unmet } from '../framing/index.ts';

const fate: Record<Unmet['kind'], string> = {
  cut: 'may be cut',
  covered: 'may be covered by the network',
  'not always shown': 'may lie outside the part that is always shown',
  shown: 'may be in the frame',
};

/** What may be wrong about something that was seen, and that nobody has confirmed. */
export function proposalWords(name: string, kind: Unmet['kind']): string {
  const subject =
    name === 'words' ? 'Words' : name === 'what stands out' ? 'What stands out' : `${articleOf(name)} ${name}`;
  return `${subject} ${fate[kind]}.`;
}

const articleOf = (name: string) => (/^[aeiou]/.test(name) ? 'An' : 'A');
