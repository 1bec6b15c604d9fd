import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const room = (from, banned, message) => ({
  files: [`src/${from}/**/*.{ts,tsx}`],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: banned, message }] }] },
});
const quiet = ['*/features/*', '*/app/*', '*/api/client', '*/api/jobs'];

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'src/api/generated.d.ts'] },
  ...tseslint.configs.recommended,
  a11y.flatConfigs.recommended,
  hooks.configs.flat.recommended,
  { rules: { 'no-restricted-globals': ['error', { name: 'fetch', message: 'Only the api room asks the server.' }] } },
  { files: ['src/api/**'], rules: { 'no-restricted-globals': 'off' } },
  room('ui', quiet, 'ui knows no feature and asks no server'),
  room('charts', quiet, 'charts know no feature and ask no server'),
  room('drawings', quiet, 'drawings know no feature and ask no server'),
  room('units', quiet, 'units know no feature and ask no server'),
  room('features/size', ['*/features/jobs*', '../../jobs/*', '../jobs/*'], 'a feature never imports another'),
  room('features/jobs', ['*/features/size*', '../../size/*', '../size/*'], 'a feature never imports another'),
);
