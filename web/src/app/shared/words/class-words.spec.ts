import type { Confirmation } from '@voltrek/core/hookup';
import type { Advice } from '@voltrek/core/job';
import { CAR } from '../../../testing/fixtures';
import { confirmWords, reasonWords } from './earth-words';
import { adviceWords } from './owner-words';
import { roadWords } from './road-words';
import { CONFIRM_WORDS, READING_WORDS, readingText } from './words';

const MOTORCYCLE = { ...CAR, machineClass: 'motorcycle' } as const;
/** Parts that no motorcycle has. */
const PARTS_OF_CARS = /heater|seat|blower|screen|demist/i;
const DRIVE = { leastMinutes: 30, targetMinutes: 60, needsCharger: false };
const RUN = { lampsMinutes: 90, allOnMinutes: 40 };

const drive = { kind: 'drive', drive: DRIVE };
const tow = { kind: 'do-not-drive', asItIs: RUN, charged: RUN };
const adviceOf = (machineClass: 'car' | 'motorcycle'): string[] =>
  [{ id: 'drive-now', drive: DRIVE }, { id: 'do-not-drive', charged: RUN }, { id: 'switch-off-first' }].map(
    (advice) => adviceWords(advice as unknown as Advice, machineClass),
  );
const linesOf = (machine: typeof CAR | typeof MOTORCYCLE): string[] => [
  ...adviceOf(machine.machineClass as 'car' | 'motorcycle'),
  ...[drive, tow].map((road) => roadWords(road as never, machine.machineClass) ?? ''),
  ...(Object.keys(CONFIRM_WORDS) as Confirmation[]).flatMap((what) => {
    const { title, detail } = confirmWords(what, machine);
    return [title, detail];
  }),
  ...(Object.keys(READING_WORDS) as (keyof typeof READING_WORDS)[]).map(
    (kind) => readingText(kind, machine).how,
  ),
];

const EV = { ...CAR, machineClass: 'ev', engine: null } as const;

describe('words by the class of the machine', () => {
  it('speak to a motorcycle of nothing that it lacks, and to a car of it', () => {
    expect(linesOf(MOTORCYCLE).filter((line) => PARTS_OF_CARS.test(line))).toEqual([]);
    expect(linesOf(CAR).filter((line) => PARTS_OF_CARS.test(line)).length).toBeGreaterThan(4);
  });

  it('speak to a machine that wakes of no crank and no idle, in readings, steps and their reasons', () => {
    const kinds = Object.keys(READING_WORDS) as (keyof typeof READING_WORDS)[];
    const read = kinds.flatMap((kind) => Object.values(readingText(kind, EV)));
    const steps = (['wait', 'all-off', 'guard-lamp'] as const).map((what) => confirmWords(what, EV).detail);
    const reasons = (['pack-arms', 'donor-lends', 'charger-works'] as const).map((reason) =>
      reasonWords({ reason }, EV),
    );
    const lines = [...read, ...steps, ...reasons];
    expect(lines.filter((line) => /crank|idle|engine/i.test(line))).toEqual([]);
    expect(reasonWords({ reason: 'pack-arms' }, CAR)).toMatch(/Crank/);
  });
});
