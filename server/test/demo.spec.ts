import { foldJob, refusalInLog } from '@voltrek/core/job';
import { type Machine, MACHINE_CLASSES, type PlanPoint } from '@voltrek/core/machine';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { pastJobs } from '../src/demo/history.js';
import { demoFleet } from '../src/demo/fleet.js';
import { demoHouse, shippedAtlas } from '../src/demo/data.js';

const NOW = new Date('2027-01-15T02:40:00.000Z');
const MACHINES = shippedAtlas();
const HOUSE = demoHouse();
const DONOR = MACHINES.find((m) => m.id === 'service-van')!;
const FLEET = demoFleet(MACHINES, DONOR.id, HOUSE);
const past = () =>
  pastJobs(
    MACHINES,
    FLEET,
    HOUSE.vans,
    DONOR,
    HOUSE.crew.map((c) => c.id),
    NOW,
  );

/** Even-odd test of a point against an outline. */
function isInside(outline: readonly PlanPoint[], { xMm, yMm }: PlanPoint): boolean {
  let inside = false;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const crosses = a.yMm > yMm !== b.yMm > yMm;
    if (crosses && xMm < ((b.xMm - a.xMm) * (yMm - a.yMm)) / (b.yMm - a.yMm) + a.xMm) inside = !inside;
  });
  return inside;
}

describe('the demo atlas', () => {
  it('has every kind of machine the scenario needs', () => {
    const kinds = new Set(MACHINES.map((m) => m.machineClass));
    for (const kind of MACHINE_CLASSES) {
      expect(kinds.has(kind)).withContext(kind).toBeTrue();
    }
  });

  it('has every clamp point and battery inside its machine, and steps to reach each', () => {
    for (const machine of MACHINES) {
      for (const point of machine.points) {
        const context = `${machine.id} ${point.id}`;
        expect(point.steps.length).withContext(context).toBeGreaterThan(0);
        if (point.kind !== 'release')
          expect(isInside(machine.outline, point)).withContext(context).toBeTrue();
      }
      for (const { rect } of machine.batteries) {
        const middle = { xMm: rect.xMm + rect.widthMm / 2, yMm: rect.yMm + rect.lengthMm / 2 };
        expect(isInside(machine.outline, middle)).withContext(machine.id).toBeTrue();
      }
    }
  });

  it('has one terminal pair per battery, as many batteries as its volts need, and ids used once', () => {
    const idsOf = (m: Machine): string[] => m.points.map((p) => p.id);
    for (const machine of MACHINES) {
      expect(machine.batteries.length)
        .withContext(machine.id)
        .toBe(machine.systemVolts / 12);
      expect(new Set(idsOf(machine)).size).toBe(idsOf(machine).length);
      machine.batteries.forEach((_, i) => {
        const kinds = machine.points
          .filter((p) => p.battery === i)
          .map((p) => p.kind)
          .sort();
        expect(kinds).withContext(machine.id).toEqual(['battery-negative', 'battery-positive']);
      });
    }
  });

  it('calls only for machines it has', () => {
    const ids = new Set(MACHINES.map((m) => m.id));
    expect(HOUSE.calls.every((call) => ids.has(call.modelId))).toBeTrue();
  });
});

describe('the demo history', () => {
  it('is the same every time', () => {
    expect(JSON.stringify(past())).toBe(JSON.stringify(past()));
  });

  it('holds only logs that the job’s own rules allow, each closed with a verdict', () => {
    for (const { call, events } of past()) {
      const machine = MACHINES.find((m) => m.id === call.modelId)!;
      const { kit } = HOUSE.vans.find((v) => v.id === call.vanId)!;
      events.forEach((event, i) => {
        const around = { machine, donor: DONOR, kit, rules: DEFAULT_RULES };
        const refusal = refusalInLog(events.slice(0, i), event, around);
        expect(refusal).withContext(`${event.type} of ${event.jobId}`).toBeNull();
      });
      const job = foldJob(events)!;
      expect(job.closedAt).not.toBeNull();
      expect(job.verdict).not.toBeNull();
      expect(Date.parse(job.closedAt!)).toBeLessThan(NOW.getTime());
    }
  });

  it('uses both vans, the whole crew, and comes back to some vehicles', () => {
    const jobs = past();
    expect(new Set(jobs.map((j) => j.call.vanId))).toEqual(new Set(HOUSE.vans.map((v) => v.id)));
    expect(new Set(jobs.map((j) => j.events[0]!.by))).toEqual(new Set(HOUSE.crew.map((c) => c.id)));
    const visits = new Map<string, number>();
    for (const { call } of jobs) visits.set(call.vehicleId, (visits.get(call.vehicleId) ?? 0) + 1);
    expect([...visits.values()].filter((n) => n >= 3).length).toBeGreaterThan(5);
    const twins = FLEET.filter((v) =>
      FLEET.some((w) => w !== v && w.modelId === v.modelId && visits.has(w.id)),
    );
    expect(twins.length).toBeGreaterThan(10);
    expect(new Set(FLEET.map((v) => v.plate ?? v.serialNumber)).size).toBe(FLEET.length);
  });

  it('has trouble of several kinds to find', () => {
    const verdicts = new Set(past().map(({ events }) => foldJob(events)!.verdict!.verdict));
    expect(verdicts.size).toBeGreaterThanOrEqual(4);
  });
});
