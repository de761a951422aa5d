import { type CheckId, drawCrowd, proposals } from '../src/diagnosis/index.js';
import { profileOf } from '../src/practice/case-profile.js';
import { PRACTICE_TOOLS } from '../src/practice/kit.js';
import {
  DRILL_KINDS,
  type Drill,
  type DrillKind,
  drillOf,
  TRACE_STORIES,
  type TraceStory,
} from '../src/practice/index.js';

type Of<K extends DrillKind> = Extract<Drill, { kind: K }>;
const many = <K extends DrillKind>(kind: K, count = 60): Of<K>[] =>
  Array.from({ length: count }, (_, i) => drillOf(kind, i) as Of<K>);

describe('a drill of a minute', () => {
  it('asks the same of everybody, of each kind, and has an answer among its choices', () => {
    for (const kind of DRILL_KINDS)
      for (let n = 0; n < 3; n++) {
        const drill = drillOf(kind, n);
        expect(drill).withContext(`${kind} ${n}`).toEqual(drillOf(kind, n));
        const count = 'choices' in drill ? drill.choices.length : 2;
        expect(drill.right).withContext(`${kind} ${n}`).toBeGreaterThanOrEqual(0);
        expect(drill.right).withContext(`${kind} ${n}`).toBeLessThan(count);
      }
  });

  it('of the order is answered by a clamp that no other is safer than, and never by one that is severe', () => {
    const drills = many('order', 24);
    const severity = (worst: { severity: string } | null): number =>
      worst === null ? 0 : ['note', 'watch', 'severe'].indexOf(worst.severity) + 1;
    for (const { choices, right } of drills) {
      expect(severity(choices[right]!.worst)).toBeLessThan(3);
      expect(choices.length).toBeGreaterThan(1);
    }
    const wrong = drills.flatMap(({ choices, right }) => choices.filter((_, i) => i !== right));
    expect(wrong.some(({ worst }) => severity(worst) > 1))
      .withContext('some mistakes bite')
      .toBeTrue();
    expect(new Set(drills.map(({ right }) => right)).size)
      .withContext('it is not always the first')
      .toBeGreaterThan(1);
  });

  it('of a reading is answered by the one that tells most for its time', () => {
    for (const { choices, right } of many('reading', 6)) {
      const worth = (c: (typeof choices)[number]): number => c.gainBits / (c.minutes + 1);
      const best = Math.max(...choices.map(worth));
      expect(worth(choices[right]!)).toBeCloseTo(best, 9);
    }
  });

  it('of a reading is answered as the whole crowd of a job would answer it', () => {
    for (const { machineClass, tempC, evidence, choices, right } of many('reading', 1)) {
      const whole = proposals(drawCrowd(profileOf(machineClass, tempC)), evidence, PRACTICE_TOOLS);
      const worthOf = (check: CheckId): number => whole.find((p) => p.check === check)!.worth;
      const answer = worthOf(choices[right]!.check);
      for (const { check } of choices) expect(worthOf(check)).withContext(check).toBeLessThanOrEqual(answer);
    }
  });

  it('of ice is answered by the table: flat acid at -16 is ice, full acid at -30 is not, lithium has none', () => {
    const drills = many('frozen', 300);
    for (const { chemistry, restVolts, coldestC, right } of drills) {
      const told = `${chemistry} ${restVolts} V ${coldestC} degC`;
      if (restVolts < -0.4) expect(right).withContext(told).toBe(1);
      else if (chemistry === 'lfp' || coldestC > 0) expect(right).withContext(told).toBe(0);
      else if (restVolts < 11.7 && coldestC <= -16) expect(right).withContext(told).toBe(1);
      else if (restVolts > 12.75 && coldestC >= -30) expect(right).withContext(told).toBe(0);
    }
    const ones = drills.filter(({ right }) => right === 1).length;
    expect(ones).toBeGreaterThan(60);
    expect(ones).toBeLessThan(240);
  });

  it('of leads is answered by the lightest that turns it fast enough: none before it does, and never without a doubt', () => {
    for (const { choices, right, neededRpm } of many('leads', 10)) {
      expect(right).toBeGreaterThan(0);
      choices.slice(0, right).forEach(({ turns }) => expect(turns).toBeFalse());
      expect(choices[right]!.turns).toBeTrue();
      expect(choices[right]!.rpm).toBeGreaterThan(neededRpm);
    }
  });

  it('of stopping is answered by whether anything seen is a stop', () => {
    const drills = many('stop', 80);
    for (const { signs, stops, right } of drills) {
      expect(right).toBe(stops.length > 0 ? 1 : 0);
      for (const stop of stops) expect(signs).toContain(stop);
      expect(signs.length).toBe(3);
      expect(new Set(signs).size).toBe(3);
    }
    expect(new Set(drills.flatMap(({ stops }) => stops)).size).toBeGreaterThan(5);
  });

  it('of a trace can be told by what a technician looks at, and by nothing else', () => {
    const drills = many('trace', 60);
    /** Read as one reads it: how far it falls, whether it ripples, where it rests and where it ends. */
    const read = ({ points, crank, restVolts, lastVolts }: (typeof drills)[number]): TraceStory => {
      const settled = points
        .filter(([s]) => s >= crank.fromSeconds + 0.5 && s < crank.toSeconds)
        .map(([, volts]) => volts);
      const least = Math.min(...points.map(([, volts]) => volts));
      if (restVolts - least < 0.6) return 'no-contact';
      if (lastVolts > 13.5) return 'sound';
      // Compression shows as a ripple about the slow sag of the plates.
      const ripple = settled
        .slice(5, -5)
        .map((volts, i) => Math.abs(volts - settled.slice(i, i + 11).reduce((a, b) => a + b, 0) / 11));
      if (ripple.reduce((a, b) => a + b, 0) / ripple.length < 0.02)
        return restVolts < 12.2 ? 'flat' : 'held-fast';
      if (crank.toSeconds - crank.fromSeconds < 1.5) return 'no-charge';
      return restVolts < 12.2 ? 'flat' : 'spent';
    };
    const wrong = drills.filter((drill) => read(drill) !== drill.choices[drill.right]);
    // A spent battery that does not even turn its engine looks like a starter held fast: only its amps would tell.
    expect(wrong.length)
      .withContext(wrong.map((d) => `${read(d)} for ${d.choices[d.right]}`).join())
      .toBeLessThan(4);
    expect(new Set(drills.map(({ choices, right }) => choices[right])).size).toBe(TRACE_STORIES.length);
    for (const { choices } of drills) expect(new Set(choices).size).toBe(4);
  });
});
