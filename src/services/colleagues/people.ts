/** Who works together: people of the house, or of one dealer; never one with the other. */
import { Op } from 'sequelize';
import { granted, type ColleaguesView, type Role } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';

/** A person whom one can ask, or hand a quote to. */
export type Colleague = ColleaguesView['people'][number];

/** Colleagues of a person who still work there, by name; whoever runs the house has no part in quotes. */
export async function colleaguesOf(actor: Pick<Actor, 'id' | 'role' | 'dealerId'>): Promise<Colleague[]> {
  const rows = await connected().records.users.findAll({
    where: {
      id: { [Op.ne]: actor.id },
      asideAt: null,
      ...(actor.role === 'dealer'
        ? { role: 'dealer', dealerId: actor.dealerId }
        : { role: { [Op.notIn]: ['dealer', 'administrator'] } }),
    },
    attributes: ['id', 'name', 'role'],
    order: [['name', 'ASC']],
    raw: true,
  });
  return rows.map(({ id, name, role }) => ({ id, name, role, quotes: granted[role].includes('quotes') }));
}

/** Everybody of a role who still works there, by their ids. */
export async function allOf(role: Role): Promise<string[]> {
  const rows = await connected().records.users.findAll({
    where: { role, asideAt: null },
    attributes: ['id'],
    raw: true,
  });
  return rows.map(({ id }) => id);
}
