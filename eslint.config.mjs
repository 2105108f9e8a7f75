import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['.next*/**', 'dist/**', 'public/**', 'node_modules/**', 'test-results/**', 'next-env.d.ts', '**/*.cjs'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: ['error', 'always'],
      // Prettier keeps code to this width, and leaves comments and words as they are: comments are kept to it here.
      'max-len': ['error', { code: 10_000, comments: 120 }],
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  {
    files: ['src/core/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          // Words from files may be `constructor` or `toString`: a plain object answers to those.
          selector:
            ':matches(Program, ExportNamedDeclaration) > VariableDeclaration > VariableDeclarator:has(TSTypeReference[typeName.name="Record"] > TSTypeParameterInstantiation > TSStringKeyword:first-child) > ObjectExpression[properties.length>0]',
          message: 'A table that is looked up by words is made with `table()` of model/own, or is a Map.',
        },
        { selector: 'MemberExpression[property.name="__proto__"]', message: 'No prototypes by name.' },
      ],
    },
  },
  { files: ['scripts/**', 'cli/**', 'tests/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  {
    files: ['src/**/*.tsx', 'src/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
