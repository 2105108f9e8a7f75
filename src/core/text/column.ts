/** Where lines stand in the height of a frame. */
export type Placing = 'top' | 'middle' | 'foot' | 'spread';

/** A place for lines, one below the other; points, in layout space. */
export interface Column {
  readonly x: number;
  readonly y: number;
  /** Null: as wide, or as high, as its words. */
  readonly width: number | null;
  readonly height: number | null;
  /** Baselines stand on these only, seen from its head. Absent: wherever leading puts them. */
  readonly grid?: { readonly start: number; readonly step: number };
  /**
   * Of a place that is no box: where a line between two heights can lie, seen from the column, left to right; none:
   * nowhere.
   */
  readonly spans?: (top: number, bottom: number) => readonly Edges[];
}
export interface Edges {
  readonly x0: number;
  readonly x1: number;
}

/** The columns of one frame, and where in its height its lines stand. */
export interface FrameMeasure {
  readonly columns: readonly Column[];
  readonly placing: Placing;
}
