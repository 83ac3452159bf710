import type { ReactNode } from 'react';
import { useMay } from '../api/access/workspaces.ts';

/** What changes something: whoever may only look does not see it. */
export const ForEditors = ({ children }: { children: ReactNode }): ReactNode => (useMay('editor') ? children : null);
