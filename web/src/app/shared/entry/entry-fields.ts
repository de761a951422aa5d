import { parseMachine } from '@voltrek/contracts';
import { CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { FUELS } from '@voltrek/core/engine';
import {
  GEARBOXES,
  isPositiveEarth,
  type Machine,
  type MachineBattery,
  type MachinePoint,
  POINT_KINDS,
  TERMINAL_LAYOUTS,
} from '@voltrek/core/machine';
import { type FieldFaults, schemaFaults } from '../ui/checked-form';
import { choicesOf, plainChoices } from '../ui/form-field';
import { typedFigure } from '../ui/typed-figure';
import { FUEL_WORDS, GEARBOX_WORDS, LAYOUT_WORDS } from '@words/atlas-words';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { POINT_KIND_WORDS } from '@words/words';
import { ENTRY_FIELDS as T } from '@words/screens/entry';

/** One thing that can be typed or chosen of an entry. `set` gives a changed copy. */
export interface Field {
  /** Its path in the entry, as its schema names it. */
  readonly path: string;
  readonly label: string;
  readonly kind: 'text' | 'number' | 'choice' | 'flag' | 'lines';
  readonly value: string;
  readonly choices?: readonly { readonly value: string; readonly name: string }[];
  readonly set: (machine: Machine, typed: string) => Machine;
}

export interface FieldGroup {
  readonly title: string;
  readonly fields: readonly Field[];
  /** Takes the part out of the entry; null for what every entry has. */
  readonly remove: ((machine: Machine) => Machine) | null;
}

const lines = (typed: string): string[] =>
  typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** Everything of an entry that is edited, in groups: the machine, its batteries, its points, its warnings. */
export function entryFields(machine: Machine): FieldGroup[] {
  return [
    machineGroup(machine),
    ...machine.batteries.map((battery, i) => batteryGroup(battery, i, machine.batteries.length)),
    ...machine.points.map(pointGroup),
    textGroup(machine),
  ];
}

/** Everything wrong with an entry, by the path of the field it stands at; empty when it can be kept. */
export function entryFaults(machine: Machine): FieldFaults {
  const fields = entryFields(machine).flatMap((group) => group.fields);
  return schemaFaults(
    fields.map(({ path, label }) => ({ key: path, label })),
    () => parseMachine(machine),
  );
}

function machineGroup(machine: Machine): FieldGroup {
  const { engine } = machine;
  const onEngine = (
    label: string,
    kind: Field['kind'],
    key: 'fuel' | 'displacementL' | 'cylinders',
  ): Field[] =>
    engine
      ? [
          {
            path: `engine.${key}`,
            label,
            kind,
            value: String(engine[key]),
            ...(key === 'fuel' && { choices: choicesOf(FUELS, FUEL_WORDS) }),
            set: (m, typed) =>
              m.engine
                ? { ...m, engine: { ...m.engine, [key]: key === 'fuel' ? typed : typedFigure(typed) } }
                : m,
          },
        ]
      : [];
  return {
    title: T.machine,
    remove: null,
    fields: [
      {
        path: 'maker',
        label: T.maker,
        kind: 'text',
        value: machine.maker,
        set: (m, maker) => ({ ...m, maker }),
      },
      {
        path: 'model',
        label: T.model,
        kind: 'text',
        value: machine.model,
        set: (m, model) => ({ ...m, model }),
      },
      {
        path: 'gearbox',
        label: T.gearbox,
        kind: 'choice',
        value: machine.gearbox,
        choices: choicesOf(GEARBOXES, GEARBOX_WORDS),
        set: (m, gearbox) => ({ ...m, gearbox: gearbox as Machine['gearbox'] }),
      },
      {
        path: 'earth',
        label: T.positiveEarth,
        kind: 'flag',
        value: String(isPositiveEarth(machine)),
        set: ({ earth: _, ...m }, typed) => (typed === 'true' ? { ...m, earth: 'positive' } : m),
      },
      ...onEngine(T.fuel, 'choice', 'fuel'),
      ...onEngine(T.displacementL, 'number', 'displacementL'),
      ...onEngine(T.cylinders, 'number', 'cylinders'),
      {
        path: 'smartAlternator',
        label: T.smartAlternator,
        kind: 'flag',
        value: String(machine.smartAlternator),
        set: (m, typed) => ({ ...m, smartAlternator: typed === 'true' }),
      },
    ],
  };
}

function batteryGroup(battery: MachineBattery, index: number, count: number): FieldGroup {
  const change =
    (part: (b: MachineBattery, typed: string) => Partial<MachineBattery>): Field['set'] =>
    (m, typed) => ({
      ...m,
      batteries: m.batteries.map((b, i) => (i === index ? { ...b, ...part(b, typed) } : b)),
    });
  const at = `batteries[${index}]`;
  const rated = (label: string, key: 'capacityAh' | 'ccaAmps'): Field => ({
    path: `${at}.rating.${key}`,
    label,
    kind: 'number',
    value: String(battery.rating[key]),
    set: change((b, typed) => ({ rating: { ...b.rating, [key]: typedFigure(typed) } })),
  });
  const placed = (label: string, key: 'xMm' | 'yMm' | 'widthMm' | 'lengthMm'): Field => ({
    path: `${at}.rect.${key}`,
    label,
    kind: 'number',
    value: String(battery.rect[key]),
    set: change((b, typed) => ({ rect: { ...b.rect, [key]: typedFigure(typed) } })),
  });
  const flagged = (label: string, key: 'closedIn' | 'ventHose'): Field => ({
    path: `${at}.${key}`,
    label,
    kind: 'flag',
    value: String(battery[key]),
    set: change((_, typed) => ({ [key]: typed === 'true' })),
  });
  return {
    title: count > 1 ? T.battery({ index: index + 1 }) : T.batteryAny,
    remove: null,
    fields: [
      {
        path: `${at}.place`,
        label: T.place,
        kind: 'text',
        value: battery.place,
        set: change((_, place) => ({ place })),
      },
      {
        path: `${at}.rating.chemistry`,
        label: T.chemistry,
        kind: 'choice',
        value: battery.rating.chemistry,
        choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
        set: change((b, typed) => ({
          rating: { ...b.rating, chemistry: typed as typeof b.rating.chemistry },
        })),
      },
      rated(battery.rating.chemistry === 'capacitor' ? T.bankAh : T.capacityAh, 'capacityAh'),
      rated(T.ccaAmps, 'ccaAmps'),
      {
        path: `${at}.rating.ccaStandard`,
        label: T.ccaStandard,
        kind: 'choice',
        value: battery.rating.ccaStandard,
        choices: plainChoices(CCA_STANDARDS),
        set: change((b, typed) => ({
          rating: { ...b.rating, ccaStandard: typed as typeof b.rating.ccaStandard },
        })),
      },
      {
        path: `${at}.layout`,
        label: T.posts,
        kind: 'choice',
        value: battery.layout,
        choices: choicesOf(TERMINAL_LAYOUTS, LAYOUT_WORDS),
        set: change((_, typed) => ({ layout: typed as MachineBattery['layout'] })),
      },
      placed(T.fromLeftMm, 'xMm'),
      placed(T.fromFrontMm, 'yMm'),
      placed(T.widthMm, 'widthMm'),
      placed(T.lengthMm, 'lengthMm'),
      {
        path: `${at}.topMm`,
        label: T.topMm,
        kind: 'number',
        value: String(battery.topMm),
        set: change((_, typed) => ({ topMm: typedFigure(typed) })),
      },
      flagged(T.closedIn, 'closedIn'),
      flagged(T.ventHose, 'ventHose'),
    ],
  };
}

function pointGroup(point: MachinePoint, index: number): FieldGroup {
  const at = `points[${index}]`;
  const change =
    (part: (typed: string) => Partial<MachinePoint>): Field['set'] =>
    (m, typed) => ({
      ...m,
      points: m.points.map((p) => (p.id === point.id ? { ...p, ...part(typed) } : p)),
    });
  /** A part that may be left out is left out when nothing is typed. */
  const maybe = (label: string, key: 'heightMm' | 'cover' | 'tools', kind: Field['kind']): Field => ({
    path: `${at}.${key}`,
    label,
    kind,
    value: Array.isArray(point[key]) ? point[key].join('\n') : String(point[key] ?? ''),
    set: (m, typed) => ({
      ...m,
      points: m.points.map((p) => {
        if (p.id !== point.id) return p;
        const { [key]: _old, ...rest } = p;
        if (typed.trim() === '') return rest;
        return {
          ...rest,
          [key]: kind === 'number' ? typedFigure(typed) : kind === 'lines' ? lines(typed) : typed,
        };
      }),
    }),
  });
  const isTerminal = point.battery !== undefined;
  return {
    title: T.point({ label: point.label }),
    remove: isTerminal ? null : (m) => ({ ...m, points: m.points.filter((p) => p.id !== point.id) }),
    fields: [
      {
        path: `${at}.label`,
        label: T.name,
        kind: 'text',
        value: point.label,
        set: change((label) => ({ label })),
      },
      ...(isTerminal
        ? []
        : [
            {
              path: `${at}.kind`,
              label: T.kind,
              kind: 'choice' as const,
              value: point.kind,
              choices: choicesOf(
                POINT_KINDS.filter((kind) => !kind.startsWith('battery')),
                POINT_KIND_WORDS,
              ),
              set: change((typed) => ({ kind: typed as MachinePoint['kind'] })),
            },
          ]),
      {
        path: `${at}.xMm`,
        label: T.fromLeftMm,
        kind: 'number',
        value: String(point.xMm),
        set: change((typed) => ({ xMm: typedFigure(typed) })),
      },
      {
        path: `${at}.yMm`,
        label: T.fromFrontMm,
        kind: 'number',
        value: String(point.yMm),
        set: change((typed) => ({ yMm: typedFigure(typed) })),
      },
      maybe(T.aboveGroundMm, 'heightMm', 'number'),
      maybe(T.under, 'cover', 'text'),
      maybe(T.tools, 'tools', 'lines'),
      {
        path: `${at}.steps`,
        label: T.steps,
        kind: 'lines',
        value: point.steps.join('\n'),
        set: change((typed) => ({ steps: lines(typed) })),
      },
    ],
  };
}

function textGroup(machine: Machine): FieldGroup {
  const text = (label: string, key: 'resets' | 'cautions' | 'never'): Field => ({
    path: key,
    label,
    kind: 'lines',
    value: machine[key].join('\n'),
    set: (m, typed) => ({ ...m, [key]: lines(typed) }),
  });
  return {
    title: T.toBeTold,
    remove: null,
    fields: [text(T.cautions, 'cautions'), text(T.never, 'never'), text(T.resets, 'resets')],
  };
}

/** The entry with one more point, in its middle, to be moved where it belongs. */
export function withNewPoint(machine: Machine): Machine {
  let nth = machine.points.length + 1;
  while (machine.points.some((p) => p.id === `point-${nth}`)) nth++;
  const point: MachinePoint = {
    id: `point-${nth}`,
    kind: 'ground-point',
    label: T.pointNth({ nth }),
    xMm: Math.round(machine.widthMm / 2),
    yMm: Math.round(machine.lengthMm / 2),
    steps: [],
  };
  return { ...machine, points: [...machine.points, point] };
}

/** A short id out of a maker and a model: letters, digits and dashes. */
export function idFrom(maker: string, model: string): string {
  return `${maker} ${model}`
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 64);
}
