/** What must hold for styles: errors first, and one way to write things. */
export default {
  extends: ['stylelint-config-standard', 'stylelint-config-css-modules'],
  rules: {
    // In modules, rules for different elements stand where their element is told of.
    'no-descending-specificity': null,
    // Classes are read as fields of an object.
    'selector-class-pattern': '^[a-z][a-zA-Z0-9]*$',
    'keyframes-name-pattern': '^[a-z][a-zA-Z0-9]*$',
  },
};
