/** Site schedules: what stands where on a site. */
export {
  byArea,
  fileTag,
  freshTags,
  longest,
  mostPositions,
  positionProblems,
  tagKey,
  type Position,
  type PositionOf,
} from './positions';
