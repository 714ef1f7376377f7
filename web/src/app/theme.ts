import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react'
import {
  animationStyles,
  breakpoints,
  checkboxSlotRecipe,
  checkmarkRecipe,
  comboboxSlotRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  dialogSlotRecipe,
  fieldSlotRecipe,
  fileUploadSlotRecipe,
  globalCss,
  inputRecipe,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  numberInputSlotRecipe,
  progressSlotRecipe,
  segmentGroupSlotRecipe,
  semanticTokens,
  skeletonRecipe,
  textareaRecipe,
  textStyles,
  toastSlotRecipe,
  tokens,
} from '@chakra-ui/react/theme'

/** Chakra's own, as far as parts of it are used here: whoever uses another part adds its recipe. The rest need not be sent to anybody. */
const used = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens,
    semanticTokens,
    textStyles,
    layerStyles,
    animationStyles,
    recipes: { checkmark: checkmarkRecipe, input: inputRecipe, skeleton: skeletonRecipe, textarea: textareaRecipe },
    slotRecipes: {
      checkbox: checkboxSlotRecipe,
      combobox: comboboxSlotRecipe,
      dialog: dialogSlotRecipe,
      field: fieldSlotRecipe,
      fileUpload: fileUploadSlotRecipe,
      menu: menuSlotRecipe,
      numberInput: numberInputSlotRecipe,
      progress: progressSlotRecipe,
      segmentGroup: segmentGroupSlotRecipe,
      toast: toastSlotRecipe,
    },
  },
})

const both = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } })

const config = defineConfig({
  globalCss: {
    'html, body, #root': { height: '100%' },
    body: {
      bg: 'paper',
      color: 'ink',
      textStyle: 'body',
      fontVariantNumeric: 'tabular-nums',
    },
    ':focus-visible': { outline: '2px solid', outlineColor: 'lagoon', outlineOffset: '1px' },
    '*, *::before, *::after': {
      _motionReduce: { transitionDuration: '0s !important', animationDuration: '0.01ms !important' },
    },
  },
  theme: {
    textStyles: {
      // Sizes in rem, so that they follow the size of text that somebody has asked their browser for.
      title: { value: { fontSize: '1.25rem', fontWeight: '700', lineHeight: '1.3' } },
      figure: { value: { fontSize: '1.125rem', fontWeight: '700', lineHeight: '1.3' } },
      heading: { value: { fontSize: '1.0625rem', fontWeight: '700', lineHeight: '1.4' } },
      body: { value: { fontSize: '0.875rem', lineHeight: '1.4' } },
      compact: { value: { fontSize: '0.8125rem', lineHeight: '1.4' } },
      second: { value: { fontSize: '0.76875rem', lineHeight: '1.4' } },
      code: { value: { fontFamily: 'mono', fontSize: '0.75rem', lineHeight: '1.45' } },
      fine: { value: { fontSize: '0.6875rem', lineHeight: '1.4' } },
    },
    tokens: {
      fonts: {
        body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        mono: { value: "'JetBrains Mono Variable', monospace" },
      },
    },
    semanticTokens: {
      colors: {
        gray: { focusRing: both('#0d5f6b', '#5cc0cd') },
        mark: both('#1d8394', '#1d8394'),
        paper: both('#f6f3ec', '#12191c'),
        panel: both('#fffdf9', '#1a2327'),
        hover: both('#f1ece1', '#222d32'),
        line: both('#dcd5c6', '#344148'),
        ink: both('#17242b', '#ece7dc'),
        ink2: both('#51616a', '#b3bec3'),
        ink3: both('#5f6d76', '#93a1a8'),
        lagoon: both('#0d5f6b', '#5cc0cd'),
        lagoonSoft: both('#e6efee', '#1c3438'),
        lagoonLine: both('#9fc5c6', '#3d6f77'),
        bandRequired: both('#1d6f83', '#1d6f83'),
        bandAvailable: both('#eddcb0', '#4d4222'),
        bandUninstall: both('#96384f', '#96384f'),
        bandContested: both('#6b5876', '#6b5876'),
        bandNone: both('#ebe5d8', '#273238'),
        bandRoot: both('#e1dac9', '#2e3a40'),
        hatchRequired: both('#cfe3e4', '#23474f'),
        hatchUninstall: both('#ecd3d8', '#4d2a35'),
        onBand: both('#ffffff', '#ffffff'),
        chip: both('#fffdf9', '#12191c'),
        required: both('#1d6f83', '#4bb0bf'),
        uninstall: both('#96384f', '#dd7c92'),
        ochre: both('#8a5f00', '#e3b65c'),
        trouble: both('#96384f', '#e58ea1'),
        honey: both('#e9c46a', '#e9c46a'),
        onHoney: both('#17242b', '#17242b'),
        bar: both('#17242b', '#0a0f11'),
        barHover: both('#24343c', '#1a2327'),
        barLine: both('#51616a', '#51616a'),
        onBar: both('#f6f3ec', '#f6f3ec'),
        onBar2: both('#b9c3c8', '#b9c3c8'),
      },
    },
  },
})

export const system = createSystem(defaultBaseConfig, used, config)
