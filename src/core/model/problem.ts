import type { FormulaProblem } from '../formula';

/**
 * Something wrong with a model document: where (a path such as "rules.pitRamps.all"), what, and the details
 * of the sentence.
 */
export interface ModelProblem {
  path: string;
  code:
    | FormulaProblem['code']
    | 'model.shape'
    | 'model.duplicateId'
    | 'model.unknownRow'
    | 'model.rowTwice'
    | 'model.unknownTarget'
    | 'model.badTargetValue'
    | 'model.cardinality'
    | 'model.badRange'
    /** A row with more values than can be told apart. */
    | 'model.tooFine'
    | 'model.tooManyBuilds'
    /** A document nested deeper than any is. */
    | 'model.nested'
    | 'model.cycle'
    | 'model.rowWidth'
    | 'model.missingText'
    | 'model.tooLarge'
    /** Models inside models beyond the depth that is kept. */
    | 'model.tooDeep'
    | 'model.unknownModel'
    | 'model.unknownClass'
    | 'model.unknownContext'
    /** A row that reaches down meets one of the same id with another type or range. */
    | 'model.reachesOther'
    | 'model.unknownPart';
  /** Offset in the formula, where the problem lies in one. */
  at?: number | undefined;
  params: Record<string, string | number>;
}
