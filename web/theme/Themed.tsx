import { App, ConfigProvider } from 'antd';
import { type ReactNode, useMemo, useSyncExternalStore } from 'react';
import { antTheme } from './antTheme.ts';

const lessMotion = matchMedia('(prefers-reduced-motion: reduce)');

function watchMotion(onChange: () => void): () => void {
  lessMotion.addEventListener('change', onChange);
  return () => lessMotion.removeEventListener('change', onChange);
}

/**
 * Ant Design in the theme's colours and type. Where less motion is asked for it has to be told: its lists and dialogs
 * wait for the end of a motion, which never comes when a style sheet takes the motion away.
 */
export function Themed({ children }: { children: ReactNode }) {
  const isStill = useSyncExternalStore(watchMotion, () => lessMotion.matches);
  const theme = useMemo(() => ({ ...antTheme, token: { ...antTheme.token, motion: !isStill } }), [isStill]);
  return (
    <ConfigProvider theme={theme}>
      <App component={false} notification={{ placement: 'bottomRight' }}>
        {children}
      </App>
    </ConfigProvider>
  );
}
