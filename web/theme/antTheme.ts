import type { ThemeConfig } from 'antd';
import { fonts, palette } from './palette.ts';

export const antTheme = {
  token: {
    colorPrimary: palette.action,
    colorInfo: palette.selection,
    colorWarning: palette.caution,
    colorError: palette.blocker,
    colorSuccess: palette.action,
    colorText: palette.ink,
    colorTextSecondary: palette.secondInk,
    colorTextTertiary: palette.secondInk,
    colorTextDescription: palette.secondInk,
    colorTextPlaceholder: palette.secondInk,
    colorBgBase: palette.sheet,
    colorBgLayout: palette.ground,
    colorBorder: palette.rule,
    colorBorderSecondary: palette.rule,
    colorLink: palette.action,
    fontFamily: fonts.text,
    borderRadius: 3,
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.14s',
    boxShadow: 'none',
    wireframe: false,
  },
  components: {
    Button: { primaryShadow: 'none', defaultShadow: 'none', dangerShadow: 'none' },
    Segmented: { trackBg: palette.rule, itemSelectedBg: palette.sheet, itemColor: palette.ink },
    Table: { headerBg: palette.ground, cellPaddingBlockSM: 6 },
  },
} satisfies ThemeConfig;

/** In CSS pixels; a finger needs that much (WCAG 2.2, success criterion 2.5.5). */
export const fingerTarget = 44;

/** The same where a finger points. */
export const fingerTheme = {
  token: { ...antTheme.token, controlHeight: fingerTarget, controlHeightSM: fingerTarget },
  components: {
    ...antTheme.components,
    Slider: { handleSize: 20, handleSizeHover: 22, controlSize: fingerTarget },
  },
} satisfies ThemeConfig;
