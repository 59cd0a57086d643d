/** What threads of engines do: everything that takes a compiled model. Plain data goes in and comes out. */
import { benchTasks } from './bench';
import { draftTasks } from './drafts';
import { drawingTasks } from './drawings';
import type { Kept } from './kept';
import { modelTasks } from './models';
import { numberTasks } from './numbers';
import { paperBuildTasks } from './on-paper';
import { priceTasks } from './prices';

export type { BenchQuestion } from './bench';
export type { Facts, Kept } from './kept';
export type { NumberRead } from './numbers';

/** All that can be asked of a thread that keeps engines. */
export const engineTasks = (kept: Kept) => ({
  ...modelTasks(kept),
  ...priceTasks(kept),
  ...benchTasks(kept),
  ...numberTasks(kept),
  ...drawingTasks(kept),
  ...draftTasks(kept),
  ...paperBuildTasks(kept),
});

/** Their types. */
export type EngineTasks = ReturnType<typeof engineTasks>;
