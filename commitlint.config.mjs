/** Commits: a type, a subject of at most 72 characters, and a body that says why and how it was measured. */
export default {
  extends: ['@commitlint/config-conventional'],
  rules: {
    'header-max-length': [2, 'always', 72],
    // Names of functions and products stand in subjects as they are written.
    'subject-case': [0],
    'body-empty': [2, 'never'],
    'body-max-line-length': [0],
    'footer-max-line-length': [0],
  },
};
