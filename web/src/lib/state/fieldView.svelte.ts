import { post } from "../api/http";
import type {
  Cell,
  Field,
  FieldRollRequest,
  MeetingRule,
  PartAddress,
  ProjectState,
  SetField,
  Traveller,
} from "../api/types";
import { directionTo, emptied, isEmpty, samePlace, type Place } from "../field/cells";
import { FieldLayers } from "./fieldLayers";
import { randomLuck } from "./luck";
import type { Session } from "./session.svelte";

/** What the pointer does on a field. */
export type FieldTool = "notes" | "arrows" | "travellers" | "walls" | "select";

/** What a change gives of a field; the rest stays. */
type FieldChange = Omit<SetField, keyof PartAddress>;

const none: Field = { columns: 1, rows: 1 };

/** The field of the part that is written: what is selected on it, and how it is written. */
export class FieldView {
  tool = $state<FieldTool>("notes");
  cursor = $state.raw<Place>({ column: 0, row: 0 });
  /** The other corner of what is selected. */
  #anchor = $state.raw<Place>({ column: 0, row: 0 });
  /** The id of the traveller that is selected. */
  #traveller = $state<number>();
  /** Cells as they are seen while the pointer writes them. */
  #draft = $state.raw<{ of: Field; cells: Cell[] }>();
  #copied = $state.raw<Cell[]>([]);
  /** What the layout gives cells: degrees that go up from column to column and from row to row, or the notes that rows or columns have. */
  layout = $state<"degrees" | "rows" | "columns">("degrees");
  /** By how many degrees the layout goes up from column to column, and from row to row. */
  perColumn = $state(1);
  perRow = $state(3);

  readonly #layers: FieldLayers;

  constructor(private readonly session: Session) {
    this.#layers = new FieldLayers(session);
  }

  /** The field as it plays: what is written, with the layers in it that are recalled live. */
  readonly field: Field = $derived.by(() =>
    this.#layers.asItPlays(this.session.part.field ?? none, this.session.address),
  );

  get cells(): Cell[] {
    if (this.#draft?.of === this.field) return this.#draft.cells;
    return this.field.cells ?? [];
  }

  get travellers(): Traveller[] {
    return this.field.travellers ?? [];
  }

  get rules(): MeetingRule[] {
    return this.field.rules ?? [];
  }

  get traveller(): Traveller | undefined {
    return this.travellers.find(({ id }) => id === this.#traveller);
  }

  selectTraveller(id: number | undefined): void {
    this.#traveller = id;
  }

  cell({ column, row }: Place): Cell | undefined {
    return this.cells.find((cell) => cell.column === column && cell.row === row);
  }

  /** Moves the cursor; with what was selected before, all between is. */
  moveTo(place: Place, extends_ = false): void {
    const { columns, rows } = this.field;
    const within = (n: number, count: number) => Math.max(0, Math.min(count - 1, n));
    this.cursor = { column: within(place.column, columns), row: within(place.row, rows) };
    if (!extends_) this.#anchor = this.cursor;
  }

  isSelected({ column, row }: Place): boolean {
    const between = (n: number, a: number, b: number) => n >= Math.min(a, b) && n <= Math.max(a, b);
    return (
      between(column, this.cursor.column, this.#anchor.column) &&
      between(row, this.cursor.row, this.#anchor.row)
    );
  }

  /** The places that are selected, in rows from the top. */
  get selected(): Place[] {
    return this.places.filter((place) => this.isSelected(place));
  }

  /** All places of the grid, in rows from the top. */
  get places(): Place[] {
    const { columns, rows } = this.field;
    return Array.from({ length: columns * rows }, (_, i) => ({
      column: i % columns,
      row: Math.floor(i / columns),
    }));
  }

  /** Changes what is given, which can follow from the field as the edits before this one make it. */
  set(change: FieldChange | ((field: Field) => FieldChange)): Promise<void> {
    const { address } = this.session;
    return this.session.edit(() => {
      const track = this.session.project.tracks.find(({ id }) => id === address.track);
      const pattern = track?.patterns.find(({ id }) => (id ?? 0) === address.pattern);
      const given =
        typeof change === "function"
          ? change(this.#layers.asItPlays(pattern?.parts[0]?.field ?? none, address))
          : change;
      return { setField: { ...address, ...given } };
    });
  }

  /** Cells with some of them changed; those that hold nothing any more are left out. */
  #with(cells: readonly Cell[], places: readonly Place[], change: (cell: Cell) => Cell): Cell[] {
    const others = cells.filter((cell) => !places.some((place) => samePlace(place, cell)));
    const changed = places.map((place) =>
      change(cells.find((cell) => samePlace(place, cell)) ?? { ...place }),
    );
    return [...others, ...changed.filter((cell) => !isEmpty(cell))];
  }

  /** Changes cells, usually the selected ones. */
  change(change: (cell: Cell) => Cell, places: readonly Place[] = this.selected): Promise<void> {
    return this.set(({ cells = [] }) => ({ cells: this.#with(cells, places, change) }));
  }

  /** Shows cells as they are going to be, while the pointer is down. */
  preview(places: readonly Place[], change: (cell: Cell) => Cell): void {
    this.#draft = { of: this.field, cells: this.#with(this.cells, places, change) };
  }

  /** Shows arrows along a way, which are already drawn being taken as they are. */
  previewArrows(way: readonly Place[]): void {
    let cells = this.field.cells ?? [];
    way.slice(1).forEach((place, i) => {
      const from = way[i];
      const to = from && directionTo(from, place);
      if (!from || to === undefined) return;
      const cell = cells.find((c) => samePlace(c, from)) ?? { ...from };
      cells = [...cells.filter((c) => c !== cell), this.withArrow(cell, to, false)];
    });
    this.#draft = { of: this.field, cells };
  }

  /** Shows no more what was to be written. */
  drop(): void {
    this.#draft = undefined;
  }

  /** Writes what was shown. */
  async commit(): Promise<void> {
    const draft = this.#draft;
    if (!draft) return;
    await this.set({ cells: draft.cells });
    this.#draft = undefined;
  }

  /** The degree that the layout has for a cell. */
  degreeAt({ column, row }: Place): number {
    if (this.layout === "rows") return this.notesOf("rows")[row] ?? 0;
    if (this.layout === "columns") return this.notesOf("columns")[column] ?? 0;
    const degree = column * this.perColumn + (this.field.rows - 1 - row) * this.perRow;
    return Math.max(-28, Math.min(28, degree));
  }

  withNote = (cell: Cell): Cell =>
    cell.note || cell.wall ? cell : { ...cell, note: true, degree: this.degreeAt(cell) };

  /** Does at the cursor what the tool does. */
  use(): Promise<void> {
    const cell = this.cell(this.cursor);
    switch (this.tool) {
      case "travellers":
        return this.dropTraveller(this.cursor);
      case "walls":
        return this.change((c) => ({ ...emptied(c), wall: !cell?.wall }));
      default:
        return this.change((c) => (cell?.note ? { ...c, note: false } : this.withNote(c)));
    }
  }

  clear(): Promise<void> {
    return this.change(emptied);
  }

  transpose(by: number): Promise<void> {
    const bound = (n: number) => Math.max(-28, Math.min(28, n));
    return this.change((c) => (c.note ? { ...c, degree: bound((c.degree ?? 0) + by) } : c));
  }

  /** Gives the selected cells the notes of the layout; cells without notes too if more than one is selected. */
  layOut(): Promise<void> {
    const all = this.selected.length > 1;
    return this.change((c) =>
      c.wall || !(c.note || all) ? c : { ...c, note: true, degree: this.degreeAt(c), octave: 0 },
    );
  }

  /** The cell with an arrow more from it to a neighbour, or with that arrow taken away. */
  withArrow(cell: Cell, to: number, takesAway: boolean): Cell {
    const arrows = cell.arrows ?? [];
    const there = arrows.some((arrow) => arrow.to === to);
    if (there)
      return takesAway ? { ...cell, arrows: arrows.filter((arrow) => arrow.to !== to) } : cell;
    return { ...cell, arrows: [...arrows, { to, weight: 100 }] };
  }

  /** Draws an arrow from the cursor's cell to a neighbour, or takes it away, and goes there. */
  async arrowTo(place: Place): Promise<void> {
    const to = directionTo(this.cursor, place);
    if (to === undefined) return;
    const from = this.cursor;
    this.moveTo(place); // the next key counts from there
    await this.change((c) => this.withArrow(c, to, true), [from]);
  }

  async dropTraveller(place: Place): Promise<void> {
    const there = this.travellers.find((t) => t.column === place.column && t.row === place.row);
    if (there) return this.selectTraveller(there.id);
    if (this.travellers.length >= 16) return;
    let id = 1;
    while (this.travellers.some((t) => t.id === id)) id++;
    const follows = (this.cell(place)?.arrows ?? []).length > 0;
    const added: Traveller = {
      id,
      motion: follows ? "arrows" : "straight",
      ...place,
      direction: 2,
      rate: "1/8",
      velocity: 100,
      length: 100,
    };
    await this.set(({ travellers = [] }) => ({ travellers: [...travellers, added] }));
    this.selectTraveller(id);
  }

  /** Changes a traveller, or without a change removes it. */
  setTraveller(id: number, change: Partial<Traveller> | undefined): Promise<void> {
    return this.set(({ travellers = [] }) => ({
      travellers: travellers.flatMap((t) =>
        t.id !== id ? [t] : change ? [{ ...t, ...change }] : [],
      ),
    }));
  }

  copy(): void {
    const from = this.selected[0];
    if (!from) return;
    this.#copied = this.selected.map((place) => {
      const cell = this.cell(place) ?? place;
      return { ...cell, column: cell.column - from.column, row: cell.row - from.row };
    });
  }

  /** Puts what was copied in from the cursor on, as far as the grid goes. */
  async paste(): Promise<void> {
    const { column, row } = this.cursor;
    const cells = this.#copied
      .map((c) => ({ ...c, column: c.column + column, row: c.row + row }))
      .filter((c) => c.column < this.field.columns && c.row < this.field.rows);
    if (cells.length === 0) return;
    await this.change(
      (cell) => cells.find((c) => c.column === cell.column && c.row === cell.row) ?? cell,
      cells,
    );
  }

  /** The degrees of all rows, or columns, by which travellers sound that turn there: as far up as a row is from the last, a column from the first, where nothing else is written. */
  notesOf(lines: "rows" | "columns"): number[] {
    const { columns, rows, rowNotes = [], columnNotes = [] } = this.field;
    return lines === "rows"
      ? Array.from({ length: rows }, (_, row) => rowNotes[row] ?? rows - 1 - row)
      : Array.from({ length: columns }, (_, column) => columnNotes[column] ?? column);
  }

  /** How the field is rolled, and the number from which the last roll followed. */
  rolling = $state.raw<Omit<FieldRollRequest, "revision" | "track" | "pattern" | "part">>({
    do: "loops",
    luck: randomLuck(),
    density: 40,
    lowest: 0,
    highest: 14,
    loops: 2,
    length: 7,
  });

  /** Writes new values into the cells that are not locked, as they follow from a number. */
  roll(luck: number): Promise<void> {
    this.rolling = { ...this.rolling, luck };
    const asked = { ...this.session.address, ...this.rolling };
    return this.session.change((revision) =>
      post<ProjectState>("api/fields/roll", { revision, ...asked }),
    );
  }

  /** Lays the whole field out anew. */
  turn(how: string): Promise<void> {
    const { address } = this.session;
    return this.session.change((revision) =>
      post<ProjectState>("api/fields", { revision, ...address, do: how }),
    );
  }
}
