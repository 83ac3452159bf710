import type { Finish, Treatment } from '../../model/index.ts';

/** What leaves a picture as scaling makes it. */
export const plainTreatment: Treatment = {
  oversize: 1,
  kernel: 'lanczos3',
  sharpen: { amount: 0, radius: 0.6, threshold: 2 },
  second: { amount: 0, radius: 0.4, threshold: 2 },
  blend: 0,
  halo: 0.1,
  compensate: { kind: 'measured' },
  tone: { kind: 'as it is' },
  saturation: 1,
  border: null,
};

/** The finish of a project that nobody has chosen another for. */
export const plainFinishId = 'plain';

const shipped: readonly Omit<Finish, 'version' | 'shipped'>[] = [
  {
    id: plainFinishId,
    name: 'Plain',
    description: 'Scaling and nothing else: for pictures that were finished elsewhere, and to compare with.',
    treatment: plainTreatment,
  },
  {
    id: 'crisp',
    name: 'Crisp',
    description:
      'For photographs seen small: what scaling down has softened comes back, without bright seams at edges.',
    treatment: {
      ...plainTreatment,
      oversize: 1.5,
      sharpen: { amount: 1.8, radius: 0.7, threshold: 5 },
      second: { amount: 1, radius: 0.4, threshold: 4 },
      blend: 0.4,
      halo: 0.04,
    },
  },
  {
    id: 'gentle',
    name: 'Gentle',
    description: 'For faces, skies and fine grain: a little sharper, with a threshold that leaves flat areas alone.',
    treatment: {
      ...plainTreatment,
      oversize: 1.5,
      sharpen: { amount: 0.8, radius: 0.7, threshold: 7 },
      second: { amount: 0.6, radius: 0.4, threshold: 6 },
      blend: 0.2,
      halo: 0.02,
    },
  },
  {
    id: 'scan',
    name: 'Scan',
    description: 'For drawings on paper: the paper becomes white and the lines stay, a little crisper than they were.',
    treatment: {
      ...plainTreatment,
      oversize: 1.5,
      sharpen: { amount: 0.8, radius: 0.6, threshold: 5 },
      halo: 0.05,
      compensate: { kind: 'off' },
      tone: { kind: 'paper' },
    },
  },
];

/** The finishes that come with the program. Their ids and numbers stay as they are: people's files follow from them. */
export const shippedFinishes: readonly Finish[] = shipped.map((finish) => ({ ...finish, version: 1, shipped: true }));
