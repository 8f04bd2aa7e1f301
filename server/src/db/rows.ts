import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { Order, Transaction, WhereOptions } from 'sequelize';
import { ApiProblem, notFound } from '../http/problem.ts';
import type { AnyModel } from './models.ts';
import { TABLES } from './schema.ts';
import type { RowOf, TableName } from './schema.ts';

type Plain = Record<string, unknown>;

/** Equal to a value, or one of several. */
export type Where<Row> = { readonly [Key in keyof Row]?: Row[Key] | readonly Row[Key][] };
/** Columns to sort by, each ascending unless told otherwise. */
export type Sort<Row> = readonly ((keyof Row & string) | readonly [keyof Row & string, 'DESC'])[];

interface Reading<Row> {
  readonly sort?: Sort<Row>;
  readonly limit?: number;
  /** Only these columns. */
  readonly columns?: readonly (keyof Row & string)[];
}

/** Columns the unit fills in, or the database. */
type Filled = 'practiceId' | 'actorKind' | 'actorId' | 'version' | 'createdAt' | 'revision';
/** A row to insert: what the database or the unit of work fills in is left out. */
export type NewRow<Row> = Omit<Row, Filled & keyof Row>;

/** Whose rows are seen and who is written down as having changed them. */
export interface Scope {
  readonly transaction: Transaction;
  /** Null sees every practice: signing in, and laying out a practice. */
  readonly practiceId: string | null;
  readonly actor: { readonly kind: string; readonly id: string | null };
}

/**
 * The rows of one table as a unit of work sees them: those of its practice alone, in its own transaction. Every row that
 * is written says who wrote it.
 */
export class Rows<Name extends TableName, Row extends RowOf<Name> = RowOf<Name>> {
  private readonly model: AnyModel;
  private readonly scope: Scope;
  private readonly columns: ReadonlySet<string>;
  private readonly scopeColumn: string | null;
  private readonly name: Name;

  constructor(name: Name, model: AnyModel, scope: Scope) {
    this.name = name;
    this.model = model;
    this.scope = scope;
    this.columns = new Set(Object.keys(TABLES[name].shape));
    this.scopeColumn = name === 'practices' ? 'id' : this.columns.has('practiceId') ? 'practiceId' : null;
  }

  private where(where: Where<Row>): WhereOptions {
    const own = Object.fromEntries(
      Object.entries(where).map(([key, value]) => [key, Array.isArray(value) ? { [Op.in]: value } : value]),
    );
    const { practiceId } = this.scope;
    return this.scopeColumn === null || practiceId === null
      ? own
      : { ...own, [this.scopeColumn]: practiceId };
  }

  private stamped(row: Plain): Plain {
    const { kind, id } = this.scope.actor;
    return this.columns.has('actorId') ? { ...row, actorKind: kind, actorId: id } : row;
  }

  private fresh(row: NewRow<Row>): Plain {
    const { practiceId } = this.scope;
    const scoped = this.scopeColumn === 'practiceId' && practiceId !== null ? { ...row, practiceId } : row;
    return this.stamped({ ...(this.columns.has('version') ? { version: 1 } : {}), ...scoped });
  }

  async all(where: Where<Row> = {}, { sort = [], limit, columns }: Reading<Row> = {}): Promise<Row[]> {
    const order = sort.map((by) => (typeof by === 'string' ? [by, 'ASC'] : [...by])) as Order;
    const rows = await this.model.findAll({
      where: this.where(where),
      order,
      ...(limit === undefined ? {} : { limit }),
      ...(columns ? { attributes: [...columns] } : {}),
      raw: true,
      transaction: this.scope.transaction,
    });
    return rows as unknown as Row[];
  }

  /**
   * The one row, or null. `lock` holds it until the unit ends; rows that only refer to it are still written, so that two
   * units that both refer to a practice and then hold it do not wait for each other.
   */
  async one(
    where: Where<Row>,
    { lock = false, sort = [] }: { lock?: boolean; sort?: Sort<Row> } = {},
  ): Promise<Row | null> {
    const { transaction } = this.scope;
    const order = sort.map((by) => (typeof by === 'string' ? [by, 'ASC'] : [...by])) as Order;
    const row = await this.model.findOne({
      where: this.where(where),
      order,
      raw: true,
      transaction,
      ...(lock ? { lock: transaction.LOCK.NO_KEY_UPDATE } : {}),
    });
    return row as unknown as Row | null;
  }

  /** The one row; 404 naming what was looked for when there is none. */
  async need(where: Where<Row>, what: string, options: { lock?: boolean } = {}): Promise<Row> {
    const row = await this.one(where, options);
    if (!row) throw notFound(what);
    return row;
  }

  count(where: Where<Row> = {}): Promise<number> {
    return this.model.count({ where: this.where(where), transaction: this.scope.transaction });
  }

  async insert(row: NewRow<Row>): Promise<Row> {
    const created = await this.model.create(this.fresh(row), { transaction: this.scope.transaction });
    return created.get({ plain: true }) as unknown as Row;
  }

  async insertAll(rows: readonly NewRow<Row>[]): Promise<void> {
    if (rows.length === 0) return;
    await this.model.bulkCreate(rows.map((row) => this.fresh(row)) as never, {
      transaction: this.scope.transaction,
    });
  }

  /** Inserts rows or, where the key is there already, replaces these columns. */
  async put(rows: readonly NewRow<Row>[], replace: readonly (keyof Row & string)[]): Promise<void> {
    if (rows.length === 0) return;
    await this.model.bulkCreate(rows.map((row) => this.fresh(row)) as never, {
      transaction: this.scope.transaction,
      updateOnDuplicate: replace as never,
    });
  }

  /** Changes every row that matches; how many those were. */
  async update(where: Where<Row>, changes: Partial<Row>): Promise<number> {
    const [count] = await this.model.update(this.stamped(changes as Plain), {
      where: this.where(where),
      transaction: this.scope.transaction,
    });
    return count;
  }

  /**
   * Changes a row if it still has the version the change was made on. Otherwise 409 with the row as it is now, so that
   * nothing is overwritten silently. Rows of another practice do not exist.
   */
  async change(
    where: Where<Row>,
    version: number,
    changes: Partial<Row>,
    show: (row: Row) => Promise<unknown> | unknown = (row) => row,
  ): Promise<Row> {
    const row = await this.atVersion(where, version, show);
    const next = { ...changes, version: version + 1 } as Partial<Row>;
    await this.update(where, next);
    return { ...row, ...next };
  }

  /**
   * Puts what stands at a place: changes the row of that version, or makes the first one when none is there yet (version
   * null). 409 with the row as it is when somebody else was faster.
   */
  async putAt(
    where: Partial<Row>,
    version: number | null,
    values: Partial<Row>,
    show: (row: Row) => Promise<unknown> | unknown = (row) => row,
  ): Promise<void> {
    if (version !== null) {
      await this.change(where, version, values, show);
      return;
    }
    const existing = await this.one(where);
    if (existing) throw new ApiProblem('version-conflict', { current: await show(existing) });
    await this.insert({ id: randomUUID(), ...where, ...values } as NewRow<Row>);
  }

  /** Removes a row that still has the version it was read at; 409 with the row as it is otherwise. */
  async remove(
    where: Where<Row>,
    version: number,
    show: (row: Row) => Promise<unknown> | unknown = (row) => row,
  ): Promise<Row> {
    const row = await this.atVersion(where, version, show);
    await this.drop(where);
    return row;
  }

  /** Removes every row that matches, whatever its version; how many those were. */
  drop(where: Where<Row>): Promise<number> {
    return this.model.destroy({ where: this.where(where), transaction: this.scope.transaction });
  }

  private async atVersion(
    where: Where<Row>,
    version: number,
    show: (row: Row) => Promise<unknown> | unknown,
  ): Promise<Row> {
    const row = await this.need(where, WHAT[this.name] ?? 'Row', { lock: true });
    if ((row as { version: number }).version === version) return row;
    throw new ApiProblem('version-conflict', { current: await show(row) });
  }
}

/** What a missing row is called to a person. */
const WHAT: Partial<Record<TableName, string>> = {
  practices: 'Practice',
  athletes: 'Athlete',
  injuries: 'Injury',
  precautions: 'Precaution',
  red_flag_answers: 'Stop-and-refer answer',
  pains: 'Pain',
  protocols: 'Protocol',
  need_overrides: 'Need',
  placements: 'Placement',
  method_choices: 'Choice',
  check_ins: 'Check-in',
  occasions: 'Occasion',
  lifts: 'Lift',
  judgements: 'Judgement',
  reference_edits: 'Figure',
  practice_tasks: 'Task',
  own_drills: 'Drill',
  templates: 'Template',
  screenings: 'Screening',
  results: 'Result',
  routines: 'Routine',
  routine_drafts: 'Draft',
  sessions: 'Session',
};
