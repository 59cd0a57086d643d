/** What a thread of engines keeps, and what it is told of a build. */
import { withAsked, type Context, type Decision, type Engine } from '../../../../core/engine';
import type { CompiledModel, Values } from '../../../../core/model';
import type { Tariff } from '../../../../core/pricing';
import type { Surroundings } from '../thread';

/** What a thread keeps between jobs, by key; what it does not hold it asks for. */
export interface Kept {
  model(version: string): CompiledModel;
  engine(version: string, context: Context, stopped: () => boolean): Engine;
  tariff(key: string): Tariff;
  facts(key: string): Facts;
}

/** What is known of items besides prices, by number; days are working days, masses kilograms. */
export type Facts = Readonly<Record<string, { leadDays: number; mass?: string }>>;

/** A build on a version of its model. */
export interface Built {
  version: string;
  values: Values;
}

/** A version of a model with all that is given from outside: what is fixed, and the needs answered. */
export interface Given {
  version: string;
  context: Context;
  asked: readonly Decision[];
}

/** The engine for what is given. */
export const engineFor = (
  kept: Kept,
  { version, context, asked }: Given,
  { stopped }: Pick<Surroundings, 'stopped'>,
): Engine => withAsked(kept.engine(version, context, stopped), asked);

/** A list as those see it who do not see costs. */
export const openTariff = ({ costs: _costs, rates: _rates, ...rest }: Tariff): Tariff => rest;
