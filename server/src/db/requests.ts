import { Op, type Model, type ModelStatic, type Order, type WhereOptions } from 'sequelize';

/**
 * Returns requests, newest first: all that wait for an answer, however many there are, then the last ones that were answered.
 * The rows have a `state`, which is `open` until somebody answers.
 */
export async function listedRequests<Row extends Model>(
  rows: ModelStatic<Row>,
  concerned: WhereOptions,
  maxAnswered: number,
): Promise<Row[]> {
  const order: Order = [['createdAt', 'DESC']];
  const where = (state: object | string) => ({ [Op.and]: [concerned, { state }] }) as WhereOptions;
  const open = await rows.findAll({ where: where('open'), order });
  return [...open, ...(await rows.findAll({ where: where({ [Op.ne]: 'open' }), order, limit: maxAnswered }))];
}
