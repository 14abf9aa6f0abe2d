import type { ThemeConfig } from 'antd';
import { theme } from 'antd';

/** Colours of the cutting room. */
export const PALETTE = {
  linen: '#F5F1E8',
  paper: '#FFFDF8',
  ink: '#22302E',
  pine: '#1F5A4E',
  ochre: '#B9801A',
  brick: '#A63D2A',
  fuchsia: '#C2186B',
} as const;

const FONT = "'Hanken Grotesk Variable', system-ui, sans-serif";

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
      colorTextBase: dark ? '#EFEAE0' : PALETTE.ink,
      fontFamily: FONT,
      fontSize: 13,
      fontSizeSM: 12,
      borderRadius: 5,
    },
    components: {
      // The default grey of what is not chosen falls short of AA on its ground.
      Segmented: { itemColor: dark ? '#EFEAE0' : PALETTE.ink },
    },
  };
}
