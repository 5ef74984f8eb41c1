import tseslint from 'typescript-eslint';

/** Forbids imports into the given parts of `src`, by alias and by relative path. */
const without = (parts, why) => ({
  'no-restricted-imports': ['error', { patterns: parts.map((part) => ({ regex: `^(@/|(\\.\\./)+)${part}(/|$)`, message: why })) }],
});

const down = 'Imports run downward only: app → studio → workers → core; app → server → core; cli → server, core.';
const apart = 'Inside the core a folder reads only what lies below it; see docs/decisions/0002-one-direction-of-flow.md.';

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'data/**',
      'tmp/**',
      '**/*.generated.ts',
      'src/core/render/kernel/assembly/**',
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
  { files: ['src/core/**'], rules: without(['app', 'studio', 'workers', 'server', 'cli'], down) },
  { files: ['src/workers/**'], rules: without(['app', 'studio', 'server', 'cli'], down) },
  { files: ['src/studio/**'], rules: without(['app', 'server', 'cli'], down) },
  { files: ['src/server/**'], rules: without(['app', 'studio', 'workers', 'cli'], down) },
  { files: ['src/cli/**'], rules: without(['app', 'studio', 'workers'], down) },
  // Flat configuration replaces a rule's options: each line repeats what holds for the core as a whole.
  {
    files: ['src/core/units/**', 'src/core/geometry/**'],
    rules: without(
      [
        'app',
        'studio',
        'workers',
        'server',
        'cli',
        'project',
        'shell',
        'stock',
        'finishes',
        'light',
        'render',
        'drawing',
        'boards',
        'schedules',
        'checks',
        'formats',
        'demo',
        'model',
      ],
      apart,
    ),
  },
  {
    files: ['src/core/project/**'],
    rules: without(
      [
        'app',
        'studio',
        'workers',
        'server',
        'cli',
        'shell',
        'stock',
        'finishes',
        'light',
        'render',
        'drawing',
        'boards',
        'schedules',
        'checks',
        'formats',
        'demo',
        'model',
      ],
      apart,
    ),
  },
  {
    files: ['src/core/shell/**', 'src/core/stock/**', 'src/core/light/**', 'src/core/finishes/**'],
    rules: without(['app', 'studio', 'workers', 'server', 'cli', 'render', 'drawing', 'boards', 'schedules', 'checks', 'formats', 'demo'], apart),
  },
  {
    files: ['src/core/drawing/**', 'src/core/schedules/**', 'src/core/checks/**'],
    rules: without(['app', 'studio', 'workers', 'server', 'cli', 'formats', 'demo', 'boards'], apart),
  },
  { files: ['src/core/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
);
