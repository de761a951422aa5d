import type { Machine } from '@voltrek/core/machine';
import { writeCsvRows } from '../files/csv-rows.js';
import { type Cells, COLUMNS, type Part } from './csv-columns.js';

const shape = (points: readonly (readonly [number, number])[]): string =>
  points.map(([a, b]) => `${a} ${b}`).join('; ');
const plan = (points: Machine['outline']): string => shape(points.map((p) => [p.xMm, p.yMm]));
const rectCells = (rect: Machine['wheels'][number]): Cells => ({
  x_mm: rect.xMm,
  y_mm: rect.yMm,
  width_mm: rect.widthMm,
  length_mm: rect.lengthMm,
});

/** Machines as comma-separated values, UTF-8, in pieces as they come. `parseCsv` of csv-read reads exactly this. */
export async function* toCsv(machines: AsyncIterable<Machine> | Iterable<Machine>): AsyncGenerator<string> {
  yield `${COLUMNS.join(',')}\n`;
  for await (const machine of machines) {
    const rows = rowsOf(machine).map(([row, cells]) => ({ ...cells, model_id: machine.id, row }));
    yield writeCsvRows(rows, COLUMNS);
  }
}

function rowsOf(m: Machine): [Part, Cells][] {
  const text = (row: Part, list: readonly string[]): [Part, Cells][] => list.map((t) => [row, { text: t }]);
  return [
    [
      'machine',
      {
        maker: m.maker,
        model: m.model,
        class: m.machineClass,
        gearbox: m.gearbox,
        system_volts: m.systemVolts,
        ...(m.earth && { earth: m.earth }),
        width_mm: m.widthMm,
        length_mm: m.lengthMm,
        shape: plan(m.outline),
        smart_alternator: m.smartAlternator,
        ...(m.engine && {
          fuel: m.engine.fuel,
          displacement_l: m.engine.displacementL,
          cylinders: m.engine.cylinders,
        }),
      },
    ],
    ...m.glass.map((g): [Part, Cells] => ['glass', { shape: plan(g) }]),
    ...m.wheels.map((w): [Part, Cells] => ['wheel', rectCells(w)]),
    ...(m.side
      ? ([
          ['side', { height_mm: m.side.heightMm, shape: shape(m.side.outline.map((p) => [p.yMm, p.zMm])) }],
          ...m.side.wheels.map((w): [Part, Cells] => [
            'side-wheel',
            { y_mm: w.yMm, height_mm: w.zMm, width_mm: w.radiusMm * 2 },
          ]),
        ] as [Part, Cells][])
      : []),
    ...m.zones.map((z): [Part, Cells] => ['zone', { kind: z.kind, label: z.label, ...rectCells(z.rect) }]),
    ...m.batteries.map((b): [Part, Cells] => [
      'battery',
      {
        label: b.place,
        ...rectCells(b.rect),
        height_mm: b.topMm,
        chemistry: b.rating.chemistry,
        capacity_ah: b.rating.capacityAh,
        cca_amps: b.rating.ccaAmps,
        cca_standard: b.rating.ccaStandard,
        layout: b.layout,
        closed_in: b.closedIn,
        vent_hose: b.ventHose,
      },
    ]),
    ...m.points.map((p): [Part, Cells] => [
      'point',
      {
        id: p.id,
        kind: p.kind,
        label: p.label,
        x_mm: p.xMm,
        y_mm: p.yMm,
        text: p.steps.join('\n'),
        ...(p.heightMm !== undefined && { height_mm: p.heightMm }),
        ...(p.battery !== undefined && { battery: p.battery }),
        ...(p.cover !== undefined && { cover: p.cover }),
        ...(p.tools && { tools: p.tools.join('\n') }),
      },
    ]),
    ...text('reset', m.resets),
    ...text('caution', m.cautions),
    ...text('never', m.never),
  ];
}
