/** What can be wrong with a formula; the sentence for a code is in the locale files. */
export interface FormulaProblem {
  code:
    | 'formula.syntax'
    | 'formula.empty'
    | 'formula.tooLong'
    | 'formula.tooDeep'
    /** More operators in a row than the grammar takes. */
    | 'formula.longChain'
    | 'formula.unsupported'
    /** A position of a build that is not written out, such as l[i]. */
    | 'formula.buildPosition'
    /** A position or a filter where there is but one build. */
    | 'formula.onlyBuild'
    | 'formula.unknownName'
    | 'formula.unknownFunction'
    | 'formula.argumentCount'
    | 'formula.wrongType'
    | 'formula.unitMismatch'
    | 'formula.unknownOption'
    /** A condition that depends on what a typed text says. */
    | 'formula.textContent'
    | 'formula.resultType';
  /** Offset of the first character concerned. */
  at: number;
  params: Record<string, string | number>;
}
