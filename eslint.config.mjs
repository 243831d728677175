import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import boundaries from 'eslint-plugin-boundaries';
import { importX } from 'eslint-plugin-import-x';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { FLOORS } from './scripts/floors.mjs';

/** Arrows point one way: web → contract ← server → core, web → core. */
function mayNotImport(...layers) {
  const group = layers.map((layer) => `**/${layer}/**`);
  return {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group, message: 'Arrows point one way: see docs/architecture.md.' }] },
    ],
  };
}

const floorNames = Array.from({ length: FLOORS.composition - 1 }, (_, i) => `floor${i + 1}`);

/** Each floor of the server takes by value only from its own and those below; tests look into all. */
const floors = {
  files: ['server/**/*.ts'],
  ignores: ['**/*.test.ts', 'server/testing/**', 'server/attacks/**'],
  plugins: { boundaries, 'import-x': importX },
  settings: {
    'import/resolver': { node: { extensions: ['.ts', '.tsx'] } },
    'boundaries/elements': [
      ...Object.entries(FLOORS.subjects).map(([subject, floor]) => ({
        type: `floor${floor}`,
        pattern: `server/${subject}`,
      })),
    ],
    // What stands beside the subjects puts them together, but for what every floor is given.
    'boundaries/files': [
      { category: 'composition', pattern: `server/!(${Object.keys(FLOORS.beside).join('|')}).ts` },
    ],
  },
  rules: {
    'boundaries/dependencies': [
      'error',
      {
        default: 'allow',
        policies: floorNames.map((type, i) => ({
          from: { element: { type } },
          disallow: {
            to: [
              { element: { types: { anyOf: floorNames.slice(i + 1) } } },
              { file: { categories: 'composition' } },
            ],
            dependency: { kind: 'value' },
          },
        })),
      },
    ],
  },
};

export default tseslint.config(
  { ignores: ['node_modules', 'dist', '.listo'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      // Most of what has methods here is an object of closures, which do not need a `this`.
      '@typescript-eslint/unbound-method': 'off',
      // There are no enums here, and no class is the same as another: looking for them takes time.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidOperator: true },
      ],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  { files: ['core/**/*.ts'], rules: mayNotImport('contract', 'server', 'web', 'demo') },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Time is given, never read, in core.' },
      ],
    },
  },
  floors,
  {
    files: ['{core,contract,server,web}/**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/resolver': { node: { extensions: ['.ts', '.tsx'] } },
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  { files: ['contract/**/*.ts'], rules: mayNotImport('server', 'web', 'demo') },
  { files: ['server/**/*.ts'], ignores: ['server/testing/**'], rules: mayNotImport('web', 'demo') },
  { files: ['web/**/*.{ts,tsx}'], ignores: ['**/*.test.ts'], rules: mayNotImport('server', 'demo') },
  {
    files: ['**/*.test.ts', 'server/testing/**', 'e2e/**', 'bench/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        URL: 'readonly',
        performance: 'readonly',
      },
    },
  },
  prettier,
);
