import type { ThemeConfig } from 'antd';
import { theme } from 'antd';
import { PALETTE } from './palette.ts';

export const FONT = "'Hanken Grotesk Variable', system-ui, sans-serif";

/** Whether the artist has asked the system for less that moves. */
const isStill = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

export function themeConfig(dark: boolean): ThemeConfig {
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: dark ? '#5FA894' : PALETTE.pine,
      colorInfo: dark ? '#5FA894' : PALETTE.pine,
      colorSuccess: dark ? '#5FA894' : PALETTE.pine,
      colorWarning: PALETTE.ochre,
      colorError: PALETTE.brick,
      colorBgBase: dark ? '#1B2221' : PALETTE.paper,
      colorTextBase: dark ? PALETTE.night : PALETTE.ink,
      // The default grey falls short of AA on paper.
      colorTextPlaceholder: dark ? '#B8B2A6' : '#5F6866',
      fontFamily: FONT,
      fontSize: 13,
      fontSizeSM: 12,
      borderRadius: 5,
      motion: !isStill(),
    },
    components: {
      // White on the lighter pine of the dark would fall short of AA as well.
      Button: { primaryColor: dark ? '#10201C' : PALETTE.paper },
      // The default grey of what is not chosen falls short of AA on its ground.
      Segmented: { itemColor: dark ? PALETTE.night : PALETTE.ink },
    },
  };
}
