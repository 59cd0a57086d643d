import type { Decision, Source, Standing, Target } from '../../../core/engine';
import type { Remark } from '../../../workers/bench/types';

/** One option: what it shows, and what taking it decides. */
export interface TabInfo {
  key: string;
  name: string;
  standing: Standing;
  taken: boolean;
  source: Source;
  difference?: string | undefined;
  remark?: Remark | undefined;
  code?: string | undefined;
  mass?: string | undefined;
  target: Target;
  /** What a click decides while it is free. */
  decision: Decision;
  changeable: boolean;
  /** It was not known in time whether it is free. */
  unproven: boolean;
  /** Why its item may not be sold here, whatever the rules of the build say. */
  unsold?: string | undefined;
}
