/** Items and their families: what is known of them, what may be kept, to whom they are sold. */
export { itemProblems, skuPattern, tidied, unsaid, type Around } from './check';
export { chainOf, familyProblems, inside, propertiesOf, valueProblem, type Families } from './families';
export { passesFilters, tellingProperties, type PropertyFilter, type PropertyFilters } from './filters';
export { freshFamily, freshItem } from './fresh';
export { barIn, isInSteps, isShown, refusedIn, successorOf, usualOf, type Refused, type Sale } from './sale';
export { differing, same } from './same';
export { itemKinds, type Bar, type Family, type Item, type ItemProperty, type PropertyValue } from './types';
