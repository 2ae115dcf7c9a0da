/** A possible pair of row and column with its worth (a whole number above 0). */
export interface Edge {
  row: number;
  column: number;
  worth: number;
}

/**
 * The choice of pairs with the greatest total worth in which no row and no column stands twice; rows and columns may
 * stay alone. Deterministic: equal worth goes to the earlier row and column.
 *
 * Method: the Hungarian method by successive shortest augmenting paths with prices (Kuhn 1955, Munkres 1957; the form with
 * Dijkstra's search over the edges there are: Jonker and Volgenant, "A shortest augmenting path algorithm for dense and sparse
 * linear assignment problems", Computing 38, 1987; from memory). Rows are placed one by one; a row may displace others, each
 * of which then takes its next best.
 *
 * Invariant, before and after each row: with cost = −worth and reduced cost = cost − price(column) − offset(row), where the offset
 * of a placed row is the reduced cost of the column it has, every reduced cost is ≥ 0 and that of every placed pair is 0. So what is placed is
 * the cheapest choice for the rows so far (complementary slackness), and the cheapest path to a free column keeps it so: prices
 * of the columns passed on the way fall by how much cheaper than its end they were reached.
 *
 * @returns for each row its column, or -1. Example: worths [[9, 8], [8, 0]] → row 0 with column 1, row 1 with column 0: 16 and not 9.
 */
export function assign(rows: number, columns: number, edges: readonly Edge[]): Int32Array {
  const byRow: Edge[][] = Array.from({ length: rows }, () => []);
  for (const edge of edges) byRow[edge.row]!.push(edge);
  const state: State = {
    byRow,
    columns,
    rowOf: new Int32Array(columns + rows).fill(-1),
    columnOf: new Int32Array(rows).fill(-1),
    price: new Float64Array(columns + rows),
    distance: new Float64Array(columns + rows),
    from: new Int32Array(columns + rows),
  };
  for (let row = 0; row < rows; row += 1) augment(state, row);
  return state.columnOf.map((column) => (column >= columns ? -1 : column));
}

interface State {
  byRow: Edge[][];
  columns: number;
  /** The row each column has; columns from `columns` on stand for staying alone, one a row. */
  rowOf: Int32Array;
  columnOf: Int32Array;
  price: Float64Array;
  distance: Float64Array;
  from: Int32Array;
}

/** Finds a place for one more row along the cheapest path and moves the rows on it. */
function augment(state: State, start: number): void {
  const { byRow, columns, rowOf, columnOf, price, distance, from } = state;
  const touched: number[] = [];
  const done = new Set<number>();
  const heap = new Heap();
  const reach = (column: number, cost: number, row: number) => {
    if (!seen.has(column)) {
      seen.add(column);
      touched.push(column);
      distance[column] = Infinity;
    }
    if (cost < distance[column]! - 1e-9) {
      distance[column] = cost;
      from[column] = row;
      heap.push(column, cost);
    }
  };
  const seen = new Set<number>();
  const relax = (row: number, base: number) => {
    const held = columnOf[row]!;
    const offset = held < 0 ? 0 : costOf(state, row, held) - price[held]!;
    for (const edge of byRow[row]!)
      if (edge.column !== held) reach(edge.column, base + (-edge.worth - price[edge.column]!) - offset, row);
    const alone = columns + row;
    if (alone !== held) reach(alone, base - price[alone]! - offset, row);
  };
  relax(start, 0);
  let end = -1;
  for (let column = heap.pop(); column !== -1; column = heap.pop()) {
    if (done.has(column)) continue;
    done.add(column);
    if (rowOf[column] === -1) {
      end = column;
      break;
    }
    relax(rowOf[column]!, distance[column]!);
  }
  const reached = distance[end]!;
  for (const column of done) if (column !== end) price[column]! += distance[column]! - reached;
  for (let column = end; ;) {
    const row = from[column]!;
    const before = columnOf[row]!;
    rowOf[column] = row;
    columnOf[row] = column;
    if (row === start) return;
    column = before;
  }
}

function costOf({ byRow, columns }: State, row: number, column: number): number {
  if (column >= columns) return 0;
  return -byRow[row]!.find((edge) => edge.column === column)!.worth;
}

/** A binary heap of columns by cost; equal costs come in the order of the columns. */
class Heap {
  private items: { column: number; cost: number }[] = [];

  push(column: number, cost: number): void {
    const { items } = this;
    items.push({ column, cost });
    for (let i = items.length - 1; i > 0;) {
      const parent = (i - 1) >> 1;
      if (!before(items[i]!, items[parent]!)) break;
      [items[i], items[parent]] = [items[parent]!, items[i]!];
      i = parent;
    }
  }

  /** The cheapest column, or -1 when there is none. */
  pop(): number {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (!top || !last) return -1;
    if (items.length > 0) {
      items[0] = last;
      this.sink();
    }
    return top.column;
  }

  private sink(): void {
    const { items } = this;
    for (let i = 0; ;) {
      let least = i;
      for (const child of [2 * i + 1, 2 * i + 2])
        if (child < items.length && before(items[child]!, items[least]!)) least = child;
      if (least === i) return;
      [items[i], items[least]] = [items[least]!, items[i]!];
      i = least;
    }
  }
}

const before = (a: { column: number; cost: number }, b: { column: number; cost: number }): boolean =>
  a.cost < b.cost - 1e-9 || (Math.abs(a.cost - b.cost) <= 1e-9 && a.column < b.column);
