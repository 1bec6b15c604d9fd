import { readdirSync } from 'node:fs';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

// Which rooms a room may import from, itself beside them; of api all may have the types, those named `api` its calls too.
const BELOW = {
  units: [],
  drawings: [],
  charts: ['drawings', 'ui', 'units'],
  ui: ['drawings', 'units'],
  chain: ['ui', 'charts', 'drawings', 'units'],
  page: ['ui', 'charts', 'drawings', 'units'],
  api: [],
};
const STAGE = ['page', 'chain', 'ui', 'charts', 'drawings', 'api', 'units'];
const ROOMS = readdirSync('src', { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map((entry) => entry.name);
// The rules are made of the stages that there are: a new one has its rule by being there.
const STAGES = readdirSync('src/stages');

/** What files of a folder may not import: every room that is not named, and of api the calls where only types are allowed. */
function room(folder, rooms, others = []) {
  const banned = ROOMS.filter(
    (name) => !rooms.includes(name) && name !== 'api' && !folder.startsWith(`${name}/`) && name !== folder,
  );
  const patterns = [
    ...banned.map((name) => ({ regex: `^(\\.\\./)+${name}(/|$)`, message: `${folder} may not import ${name}.` })),
    ...others.map((name) => ({
      regex: `^(\\.\\./)+(stages/)?${name}(/|$)`,
      message: `${folder} may not import another stage.`,
    })),
  ];
  const calls = {
    regex: '^(\\.\\./)+api(/|$)',
    message: `${folder} may have of api only types.`,
    allowTypeImports: true,
  };
  if (!rooms.includes('api') && folder !== 'api') patterns.push(calls);
  const rule = ['error', { patterns }];
  return { files: [`src/${folder}/**/*.{ts,tsx}`], rules: { '@typescript-eslint/no-restricted-imports': rule } };
}

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'src/api/generated.d.ts'] },
  ...tseslint.configs.recommended,
  a11y.flatConfigs.recommended,
  hooks.configs.flat.recommended,
  { rules: { 'no-restricted-globals': ['error', { name: 'fetch', message: 'Only the api room asks the server.' }] } },
  { files: ['src/api/**'], rules: { 'no-restricted-globals': 'off' } },
  ...Object.entries(BELOW).map(([name, rooms]) => room(name, rooms)),
  ...STAGES.map((name) =>
    room(
      `stages/${name}`,
      STAGE,
      STAGES.filter((other) => other !== name),
    ),
  ),
);
