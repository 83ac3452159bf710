import { App, ConfigProvider } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { antTheme, fingerTheme } from './antTheme.ts';
import { useFinger, useMedia } from './useMedia.ts';

/**
 * Ant Design in the theme's colours and type. Where less motion is asked for it has to be told: its lists and dialogs
 * wait for the end of a motion, which never comes when a style sheet takes the motion away.
 */
export function Themed({ children }: { children: ReactNode }) {
  const isStill = useMedia('(prefers-reduced-motion: reduce)');
  const isFinger = useFinger();
  const theme = useMemo(() => {
    const { token, components } = isFinger ? fingerTheme : antTheme;
    return { components, token: { ...token, motion: !isStill } };
  }, [isStill, isFinger]);
  return (
    <ConfigProvider theme={theme}>
      <App component={false} notification={{ placement: 'bottomRight' }}>
        {children}
      </App>
    </ConfigProvider>
  );
}
