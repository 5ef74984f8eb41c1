import tseslint from 'typescript-eslint';

/** Forbids imports into the given parts of `src`, by alias and by relative path. */
const without = (parts, why) => ({
  'no-restricted-imports': ['error', { patterns: parts.map((part) => ({ regex: `^(@/|(\\.\\./)+)${part}(/|$)`, message: why })) }],
});

const down = 'Imports run downward only: app → studio → workers → core; app → server → core; cli → server, core.';
const apart = 'Inside the core a folder reads only what lies below it; see docs/decisions/0002-one-direction-of-flow.md.';

// Flat configuration replaces a rule's options: each folder of the core repeats what holds for the core as a whole.
const above = ['app', 'studio', 'workers', 'server', 'cli'];
const consumers = ['drawing', 'schedules', 'checks', 'render', 'walk', 'boards', 'formats', 'resident', 'demo'];
const except = (...own) => consumers.filter((folder) => !own.includes(folder));

/** What the folders of the core may not read. The model's list of kinds is where drawing, schedules and checks are brought together. */
const CORE = {
  units: ['cabinetry', 'geometry', 'project', 'finishes', 'stock', 'light', 'shell', 'model', 'placing', ...consumers],
  geometry: ['cabinetry', 'project', 'finishes', 'stock', 'light', 'shell', 'model', 'placing', ...consumers],
  project: ['cabinetry', 'finishes', 'stock', 'light', 'shell', 'model', 'placing', ...consumers],
  finishes: ['cabinetry', 'placing', ...consumers],
  stock: ['cabinetry', 'placing', ...consumers],
  light: ['cabinetry', 'placing', ...consumers],
  shell: ['cabinetry', 'placing', ...consumers],
  cabinetry: ['placing', ...consumers],
  placing: consumers,
  model: except('drawing', 'schedules', 'checks'),
  drawing: except('drawing'),
  schedules: except('schedules'),
  checks: except('checks'),
  render: except('render'),
  walk: except('walk'),
  boards: except('boards', 'drawing'),
  formats: except('formats', 'boards', 'drawing'),
  resident: except('resident', 'schedules', 'checks'),
};

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'data/**',
      'tmp/**',
      '**/*.generated.ts',
      'src/core/render/*/assembly/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**', 'attack/**'], rules: { 'no-console': 'off' } },
  { files: ['src/core/**'], rules: without(above, down) },
  { files: ['src/workers/**'], rules: without(['app', 'studio', 'server', 'cli'], down) },
  { files: ['src/studio/**'], rules: without(['app', 'server', 'cli'], down) },
  {
    files: ['src/studio/**'],
    ignores: ['src/studio/look/theme.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Literal[value=/#[0-9a-fA-F]{3,8}(?![0-9a-zA-Z])/], TemplateElement[value.raw=/#[0-9a-fA-F]{3,8}(?![0-9a-zA-Z])/]',
          message: 'Colours stand in look/theme.ts, those of drawings in core/drawing/inks.ts, those of first finishes in core/project/kinds.',
        },
      ],
    },
  },
  { files: ['src/server/**'], rules: without(['app', 'studio', 'workers', 'cli'], down) },
  { files: ['src/cli/**'], rules: without(['app', 'studio', 'workers'], down) },
  ...Object.entries(CORE).map(([folder, parts]) => ({ files: [`src/core/${folder}/**`], rules: without([...above, ...parts], apart) })),
  {
    files: ['units', 'geometry', 'project', 'stock', 'shell', 'model', 'drawing', 'schedules', 'checks', 'boards', 'walk', 'resident'].map(
      (f) => `src/core/${f}/**`,
    ),
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'BinaryExpression > Literal[raw=/^[125]e-(4|5|6|7|9|12)$/]',
          message: 'Tolerances stand in core/units/tolerance.ts, by what they are for.',
        },
      ],
    },
  },
  { files: ['src/core/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
);
