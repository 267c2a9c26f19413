import { theme, type ThemeConfig } from 'antd';
import { DIM, LIGHT, MONO_FACE, TEXT_FACE, VARIABLE_KEY } from './tokens';

/** The library dressed: `scale` is the size of text, 1 for 100 %. */
export function dress(dim: boolean, scale: number, calm: boolean): ThemeConfig {
  const p = dim ? DIM : LIGHT;
  const size = (px: number) => Math.round(px * scale);
  return {
    algorithm: dim ? theme.darkAlgorithm : theme.defaultAlgorithm,
    cssVar: { key: VARIABLE_KEY },
    hashed: false,
    token: {
      colorPrimary: p.ink,
      colorInfo: p.ink,
      colorLink: p.ink,
      colorLinkHover: p.soft,
      colorSuccess: p.in,
      colorWarning: p.doubt,
      colorError: p.out,
      colorBgBase: p.sheet,
      colorTextBase: p.ink,
      colorText: p.ink,
      colorTextSecondary: p.soft,
      colorTextTertiary: p.soft,
      colorTextDescription: p.soft,
      colorTextPlaceholder: p.soft,
      colorTextDisabled: p.soft,
      colorIcon: p.soft,
      colorIconHover: p.ink,
      colorBorder: p.edge,
      colorBorderSecondary: p.line,
      colorSplit: p.line,
      colorBgLayout: p.ground,
      colorBgContainer: p.field,
      colorBgElevated: p.sheet,
      colorBgMask: p.veil,
      colorFillAlter: p.sunk,
      colorTextLightSolid: dim ? p.sunk : p.sheet,
      controlItemBgActive: p['zest-wash'],
      controlItemBgHover: p.sunk,
      controlOutline: 'transparent',
      fontFamily: TEXT_FACE,
      fontFamilyCode: MONO_FACE,
      fontSize: size(15),
      fontSizeSM: size(13),
      controlHeight: size(36),
      controlHeightSM: size(28),
      controlHeightLG: size(46),
      borderRadius: 9,
      borderRadiusSM: 7,
      borderRadiusLG: 12,
      motion: !calm,
      wireframe: false,
    },
    components: {
      Button: {
        fontWeight: 600,
        defaultShadow: 'none',
        primaryShadow: 'none',
        dangerShadow: 'none',
        defaultBg: 'var(--sheet)',
        defaultBorderColor: 'var(--line)',
        defaultHoverBg: 'var(--sheet)',
        defaultHoverBorderColor: 'var(--ink)',
        defaultHoverColor: 'var(--ink)',
        defaultActiveColor: 'var(--ink)',
        defaultActiveBorderColor: 'var(--ink)',
        // The accent is the next thing to do, and only that.
        colorPrimary: p.zest,
        colorPrimaryHover: p.zest,
        colorPrimaryActive: p.zest,
        primaryColor: p['on-zest'],
        textHoverBg: 'var(--sunk)',
      },
      Segmented: { trackBg: p.sunk, itemSelectedBg: p.sheet, itemColor: p.soft, itemHoverColor: p.ink, itemSelectedColor: p.ink },
      Modal: { contentBg: p.sheet, headerBg: p.sheet, titleFontSize: size(20) },
      Table: {
        headerBg: p.sheet,
        headerColor: p.soft,
        headerSplitColor: 'transparent',
        rowHoverBg: p.sunk,
        borderColor: p.line,
        cellPaddingBlock: 6,
        cellPaddingInline: 8,
        cellPaddingBlockSM: 5,
        cellPaddingInlineSM: 8,
        headerBorderRadius: 0,
      },
      Collapse: { headerPadding: '6px 0', contentPadding: '0 0 8px' },
      Alert: { colorInfoBg: p['zest-wash'], colorInfoBorder: p.line, colorErrorBg: p['out-wash'], colorErrorBorder: p.out, colorWarningBg: p['doubt-wash'] },
      Progress: { defaultColor: p.ink, remainingColor: p.line },
      Tooltip: { colorBgSpotlight: dim ? p.ground : p.ink, colorTextLightSolid: dim ? p.ink : p.sheet },
      Form: { itemMarginBottom: 10, verticalLabelPadding: '0 0 2px', labelColor: p.soft, labelFontSize: size(13) },
      Tag: { defaultBg: p.sunk, defaultColor: p.ink },
      Timeline: { tailColor: p.line },
      Select: { optionSelectedBg: p['zest-wash'] },
      Input: { activeShadow: 'none', hoverBorderColor: p.ink, activeBorderColor: p.ink },
    },
  };
}

/** Library variables of the dim theme as they stand until the program runs: no flash of light paper. */
export function dimLibraryVariables(): string {
  const { token, algorithm } = dress(true, 1, false);
  const all = theme.getDesignToken({ algorithm: algorithm!, token: token! });
  const kebab = (name: string) => name.replace(/[A-Z]+(?![a-z])|[A-Z]/g, (m, at: number) => `${at > 0 ? '-' : ''}${m.toLowerCase()}`);
  const rules = Object.entries(all)
    .filter(([name, value]) => /^(color|control(?:Item|Outline))/.test(name) && typeof value === 'string')
    .map(([name, value]) => `--ant-${kebab(name)}:${String(value)}`);
  return `:root[data-theme='dim']:not([data-live]) .${VARIABLE_KEY}{${rules.join(';')}}`;
}
