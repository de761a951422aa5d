import angular from 'angular-eslint';
import jsdoc from 'eslint-plugin-jsdoc';
import tseslint from 'typescript-eslint';
import { plainComments } from './scripts/lint/plain-comments.mjs';

/** Rules that every TypeScript file keeps. */
const strict = [...tseslint.configs.strictTypeChecked, ...tseslint.configs.stylisticTypeChecked];

const TEXT_SIZE = {
  selector: 'TemplateElement[value.raw=/font-size: \\d+px/]',
  message: 'Text has one of the six sizes of web/src/tokens.scss.',
};
const IS_MESSAGE = 'A text of the screen is a message in web/src/messages.';
/** Sentences in code: a capital and a second word, or two words within a template string that is no template or style. */
const NO_SENTENCES = [
  { selector: 'Literal[value=/^[A-Z][a-z]+ [a-z]/]', message: IS_MESSAGE },
  {
    selector:
      ':not(Property[key.name=/^(template|styles)$/]) > TemplateLiteral > TemplateElement[value.raw=/[a-z]{3,} [a-z]{2,}/]',
    message: IS_MESSAGE,
  },
];
/** Text that may stand in a template beside computed values: no language has another word for it. */
const UNITS_AND_SIGNS = String.raw`([^A-Za-z]|\b(A|V|W|s|h|m|L|kg|mm|cm|Ah|Wh|rpm|AGM|EFB|CCA|CSV|JSON|PDF|Enter|voltrek)\b)*`;
/** Attributes that nobody reads, or that are one of our own words. */
const NOT_READ = [
  ...['accept', 'accept-charset', 'action', 'autocapitalize', 'autocomplete', 'd', 'download', 'enctype'],
  ...['inputmode', 'labelledBy', 'loading', 'part', 'patternUnits', 'preserveAspectRatio', 'scope'],
  ...[
    'aria-describedby',
    'aria-labelledby',
    'aria-live',
    'aria-haspopup',
    'transform',
    'viewBox',
    'points',
    'ariaCurrentWhenActive',
  ],
];

/** Files of the core whose comments are older than the rule of plain comments. */
const BEFORE_THE_RULE = ['core/src/diagnosis/{belief,draw-hidden}.ts', 'core/src/plan/{draws,tries}.ts'];

/** A public function of one to four figures, texts and answers alone: an example of one line can call it. */
const OF_PLAIN_VALUES = [1, 2, 3, 4].map(
  (count) =>
    `ExportNamedDeclaration > FunctionDeclaration[params.length=${count}]` +
    Array.from(
      { length: count },
      (_, n) => `[params.${n}.typeAnnotation.typeAnnotation.type=/^TS(Number|String|Boolean)Keyword$/]`,
    ).join(''),
);

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/out/**',
      '**/.angular/**',
      'server/drizzle/**',
      '**/test-results/**',
      '**/.mutation/**',
      'server/drizzle.config.ts',
    ],
  },
  {
    files: ['**/*.ts', '**/*.mjs'],
    ignores: BEFORE_THE_RULE,
    plugins: { voltrek: { rules: { 'plain-comments': plainComments } } },
    rules: { 'voltrek/plain-comments': 'error' },
  },
  {
    // A parameter whose name says it all has no tag.
    files: ['{core,contracts,server,web}/src/**/*.ts'],
    plugins: { jsdoc },
    settings: { jsdoc: { mode: 'typescript' } },
    rules: {
      'jsdoc/check-alignment': 'error',
      'jsdoc/check-tag-names': 'error',
      'jsdoc/empty-tags': 'error',
      'jsdoc/no-bad-blocks': 'error',
      'jsdoc/no-types': 'error',
      'jsdoc/require-param-description': 'error',
      'jsdoc/require-returns-description': 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: BEFORE_THE_RULE,
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        { publicOnly: true, require: { FunctionDeclaration: true, ClassDeclaration: true } },
      ],
      'jsdoc/require-example': ['error', { contexts: OF_PLAIN_VALUES }],
    },
  },
  {
    files: ['**/*.ts'],
    extends: strict,
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidOperator: true, ignoreVoidReturningFunctions: true },
      ],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'no-console': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['web/**/*.ts'],
    extends: angular.configs.tsRecommended,
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'vt', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/unbound-method': 'off',
      'no-restricted-syntax': ['error', TEXT_SIZE],
    },
  },
  {
    files: ['web/src/app/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-syntax': ['error', TEXT_SIZE, ...NO_SENTENCES] },
  },
  {
    files: ['web/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/click-events-have-key-events': 'off',
      '@angular-eslint/template/interactive-supports-focus': 'off',
      '@angular-eslint/template/no-any': 'error',
      // Texts are messages: in a template stand units and signs at most.
      '@angular-eslint/template/i18n': [
        'error',
        {
          checkId: false,
          checkText: true,
          checkAttributes: true,
          boundTextAllowedPattern: UNITS_AND_SIGNS,
          ignoreAttributes: NOT_READ,
          // A unit behind its figure, a key of the keyboard.
          ignoreTags: ['small', 'kbd'],
        },
      ],
    },
  },
  {
    // The page that the browser shows before there are words.
    files: ['web/src/index.html', 'web/**/*.spec.ts/*.html'],
    rules: { '@angular-eslint/template/i18n': 'off' },
  },
  {
    // Every reader asks the situation of a job: a scene built from parts of a job would answer otherwise one day.
    files: ['web/src/**/*.ts', 'server/src/**/*.ts', 'contracts/src/**/*.ts'],
    ignores: ['**/*.spec.ts', 'web/src/testing/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@voltrek/core/job',
              importNames: ['hasStarted', 'coldestTempC', 'workingTempC', 'restVoltsNow', 'fittedAt'],
              message: 'Ask the situation: situationOf.',
            },
            {
              name: '@voltrek/core/plan',
              importNames: ['casualtyBatteries', 'rankOptions', 'sourceOptions'],
              message: 'Ask the situation: situationOf, rankForJob, plannedOption.',
            },
          ],
        },
      ],
    },
  },
  {
    // The command line has no job, its input is the scene; the demo's past makes what happened and reads no job.
    files: ['server/src/calc/**/*.ts', 'server/src/demo/history.ts'],
    rules: { 'no-restricted-imports': 'off' },
  },
  {
    // The types of specs are checked by the compiler alone: these rules over their 40,000 lines cost a minute of processor.
    files: ['{core,contracts,instruments,server}/test/**/*.ts', 'web/**/*.spec.ts'],
    extends: [tseslint.configs.disableTypeChecked],
  },
  {
    files: ['e2e/**/*.ts'],
    rules: { '@typescript-eslint/unbound-method': 'off' },
  },
);
