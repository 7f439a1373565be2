import {
  DataTypes,
  Model,
  literal,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type InitOptions,
} from 'sequelize';

/** An image that entries can have. */
export class ImageRow extends Model<InferAttributes<ImageRow>, InferCreationAttributes<ImageRow>> {
  declare name: string;
  /** WebP. */
  declare bytes: Buffer;
  declare width: number;
  declare height: number;
  /** Who uploaded it last. */
  declare userId: string | null;
  declare createdAt: CreationOptional<Date>;
  /** When an entry was last known to have it, or when it was last uploaded. */
  declare usedAt: CreationOptional<Date>;
}

/** Returns the bytes of a stored image (WebP), or null. */
export async function imageBytes(name: string): Promise<Buffer | null> {
  return (await ImageRow.findByPk(name, { attributes: ['bytes'] }))?.bytes ?? null;
}

/** `at` returns the options of a table by its name, as initModels has them. */
export function initImageModel(at: (table: string, timestamps?: boolean) => InitOptions): void {
  // Sequelize alters what it is given: each column needs an object of its own.
  const now = () => ({ type: DataTypes.DATE, defaultValue: literal('now()') });
  ImageRow.init(
    {
      name: { type: DataTypes.TEXT, primaryKey: true },
      bytes: { type: DataTypes.BLOB, allowNull: false },
      width: { type: DataTypes.INTEGER, allowNull: false },
      height: { type: DataTypes.INTEGER, allowNull: false },
      userId: { type: DataTypes.UUID, allowNull: true },
      createdAt: now(),
      usedAt: now(),
    },
    at('images', false),
  );
}
