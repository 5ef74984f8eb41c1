import { fittingsIn } from '../cabinetry/assemble';
import { cardOf, partOf, type PlacedFitting } from '../cabinetry/fittings';
import type { DerivedRun } from '../cabinetry/derive';
import { finishIn } from '../finishes/store';
import { derivedOf, type Model } from '../model/model';
import { roomOfRun } from '../project/runs';
import { codeOf, makeParts, priceOf } from '../stock/stock';
import type { StockItem } from '../stock/types';
import { formatLength } from '../units/length';
import { NEAR } from '../units/tolerance';

/** Something built into a unit. SI units. */
export interface ApplianceRow {
  /** Of its unit. */
  id: string;
  run: string;
  /** Number of its unit along the run, as in the plan. */
  mark: number;
  unit: string;
  name: string;
  width: number;
  depth: number;
  height: number;
  finishes: string;
  /** What has to be led to it. */
  connections: string;
  /** By how much it is too large for its place; empty where it fits. */
  fits: string;
  supplier: string;
  code: string;
  price: number;
}

/** One thing built into one unit, with what it costs. */
export interface BuiltInThing {
  run: DerivedRun;
  unit: DerivedRun['units'][number];
  mark: number;
  placed: PlacedFitting;
  item: StockItem;
  price: number;
}

/** All that is built into the units of all runs, from the left. */
export const builtInThings = (model: Model): BuiltInThing[] =>
  derivedOf(model, 'runs').flatMap((run) =>
    run.units.flatMap((unit, i) =>
      fittingsIn(unit, run.run.made).map((placed): BuiltInThing => ({
        run,
        unit,
        mark: i + 1,
        placed,
        item: placed.item,
        price: run.run.status === 'new' ? priceOf(placed.item, placed.size) : 0,
      })),
    ),
  );

/** The room a run sees first. */
export const roomOf = ({ run }: DerivedRun): string | null => roomOfRun(run);

/** Appliances, sinks and taps: what each is, where it is, whether it fits. */
export const applianceSchedule = (model: Model): ApplianceRow[] =>
  builtInThings(model).map(({ run, unit, mark, placed, item, price }): ApplianceRow => {
    const { size, over, built, traits } = placed;
    const made = new Set(makeParts(item, size, traits).map((p) => p.part));
    const own = { ...run.run.finishes, ...unit.unit.finishes };
    const lacks = (['width', 'height', 'depth'] as const).filter((key) => (over[key] ?? 0) > NEAR);
    return {
      id: unit.unit.id,
      run: run.run.name,
      mark,
      unit: unit.unit.name,
      name: cardOf(placed).name,
      ...size,
      finishes: Object.entries(item.parts)
        .filter(([part]) => made.has(part))
        .map(([part, first]) => `${part}: ${finishIn(model.project, own[partOf(built, part)] ?? first).name}`)
        .join('; '),
      connections: (item.connections ?? []).join(', '),
      fits: lacks.map((key) => `${formatLength(over[key]!, model.project.units)} too ${{ width: 'wide', height: 'high', depth: 'deep' }[key]}`).join(', '),
      supplier: item.sold.supplier,
      code: codeOf(item),
      price,
    };
  });
