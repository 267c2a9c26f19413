import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

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
      // Loads start in effects here: storage and workers are asynchronous by nature.
      'react-hooks/set-state-in-effect': 'off',
      '@typescript-eslint/no-unnecessary-condition': ['error', { allowConstantLoopConditions: true }],
    },
  },
);
