import js from '@eslint/js';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'test-results/**', '.data/**'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      'prefer-const': ['error', { destructuring: 'all' }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks, 'jsx-a11y': a11y },
    rules: {
      ...a11y.flatConfigs.recommended.rules,
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      // What is typed next belongs to the field of a dialog that has just opened.
      'jsx-a11y/no-autofocus': 'off',
      // Films are shown with their controls; they have no sound and no words.
      'jsx-a11y/media-has-caption': 'off',
      // Plan and picture are surfaces worked on by mouse and by keys: groups that take both.
      'jsx-a11y/no-noninteractive-tabindex': ['error', { tags: [], roles: ['tabpanel', 'group'] }],
      'jsx-a11y/no-noninteractive-element-interactions': ['error', { handlers: ['onClick'] }],
    },
  },
  {
    // What a constructor asks for is needed at run time: its types are no mere types.
    files: ['server/src/**/*.ts'],
    languageOptions: { parserOptions: { emitDecoratorMetadata: true, experimentalDecorators: true } },
  },
  {
    files: ['scripts/**', 'bench/**', '**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        URL: 'readonly',
        globalThis: 'writable',
        performance: 'readonly',
        Buffer: 'readonly',
        crypto: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
  {
    // Parts of these run inside the page that they drive.
    files: ['bench/*.mjs', 'bench/lib/*.mjs', 'scripts/screenshots.mjs', 'web/test-setup.mjs'],
    languageOptions: {
      globals: {
        document: 'readonly',
        window: 'readonly',
        MutationObserver: 'readonly',
        requestAnimationFrame: 'readonly',
        Element: 'readonly',
        HTMLCanvasElement: 'readonly',
        MouseEvent: 'readonly',
      },
    },
  },
);
