import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['public/**', 'var/**', 'vendor/**', 'resources/js/api/schema.d.ts'] },
  ...tseslint.configs.recommended,
  { rules: { 'max-len': ['error', { code: 120 }] } },
  {
    files: ['resources/js/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
