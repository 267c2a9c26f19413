import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

/** Controls, tables and forms come from the component library; only pages for print may do without it. */
const NATIVE = ['button', 'input', 'select', 'textarea', 'table', 'dialog', 'progress', 'details', 'datalist', 'fieldset'];
const fromTheLibrary = [
  ...NATIVE.map((name) => ({
    selector: `JSXOpeningElement[name.name="${name}"]`,
    message: `<${name}> comes from antd (Button, Input, Select, Table, Modal, Progress, Collapse…).`,
  })),
  { selector: 'JSXAttribute[name.name="role"][value.value="button"]', message: 'What can be pressed is a Button of antd.' },
  {
    selector: 'JSXOpeningElement[name.name=/^(div|span|p|li|g|svg)$/] > JSXAttribute[name.name="onClick"]',
    message: 'What can be pressed is a Button of antd.',
  },
  { selector: 'Literal[value=/#[0-9a-fA-F]{3,8}\\b/]', message: 'Colours stand in src/ui/theme/tokens.ts.' },
  { selector: 'Literal[value=/\\b(rgb|hsl)a?\\(/]', message: 'Colours stand in src/ui/theme/tokens.ts.' },
];

export default ts.config(
  { ignores: ['out/**', '.next/**', 'node_modules/**', 'src/core/kit/generated/**', 'src/core/circuit/kernel/{assembly,generated}/**', 'next-env.d.ts'] },
  {
    files: ['src/**/*.{ts,tsx}', 'scripts/**/*.ts', 'test/**/*.{ts,tsx}', 'e2e/**/*.ts'],
    extends: [...ts.configs.strictTypeChecked, hooks.configs.flat['recommended-latest']],
    plugins: { '@next/next': next },
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      ...next.configs.recommended.rules,
      ...next.configs['core-web-vitals'].rules,
      // Typed arrays in hot loops are indexed within their bounds; `!` says so without a test per access.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // What is taken out of a record to leave the rest is called `_`.
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_$', destructuredArrayIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      // `import { type A }` would still load the module at run time.
      '@typescript-eslint/no-import-type-side-effects': 'error',
      // Loads start in effects here: storage and workers are asynchronous by nature.
      'react-hooks/set-state-in-effect': 'off',
      '@typescript-eslint/no-unnecessary-condition': ['error', { allowConstantLoopConditions: true }],
    },
  },
  {
    files: ['src/ui/**/*.tsx'],
    rules: { 'no-restricted-syntax': ['error', ...fromTheLibrary] },
  },
);
