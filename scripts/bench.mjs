import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { benchBelief } from './bench-belief.mjs';
import { build, findNgspice, install } from './steps.mjs';

await install();
await build();
if (process.argv[2] === 'store') {
  const { benchStore } = await import('./bench-store.mjs');
  await benchStore(Number(process.argv[3] ?? 20_000));
  process.exit(0);
}
if (process.argv[2] === 'load') {
  const { benchLoad } = await import('./bench-load.mjs');
  await benchLoad();
  process.exit(0);
}
if (process.argv[2] === 'web') {
  const { benchWeb } = await import('./bench-web.mjs');
  await benchWeb();
  process.exit(0);
}
const FLOORS = [
  'rules',
  'battery',
  'circuit',
  'crank',
  'belief',
  'plan',
  'quantities',
  'diagnosis',
  'practice',
  'reach',
  'trace',
  'hookup',
  'verdict',
  'job',
];
const floors = await Promise.all(FLOORS.map((floor) => import(`../core/dist/src/${floor}/index.js`)));
const core = Object.assign({}, ...floors);

const FLOODED = { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' };
const DONOR = { chemistry: 'flooded', capacityAh: 95, ccaAmps: 800, ccaStandard: 'EN' };
const ENGINE = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const LEADS = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' };
const TEMP_C = -4;
const state = { soc: 0.15, tempC: TEMP_C, ageing: 1.3 };
const donorState = { soc: 0.95, tempC: TEMP_C, ageing: 1.2 };
const on = { plus: { kind: 'plus', battery: 0 }, body: { kind: 'body' } };
const rescue = {
  casualty: [{ openVolts: core.batteryOpenVolts(FLOODED, state), ohms: core.batteryOhms(FLOODED, state) }],
  load: { kind: 'none' },
  source: {
    openVolts: core.batteryOpenVolts(DONOR, donorState),
    ohms: core.batteryOhms(DONOR, donorState),
    polarises: true,
    alternator: { volts: 14.2, maxAmps: 60 },
  },
  sourceOn: true,
  leads: LEADS,
  tempC: TEMP_C,
  clamps: { redCasualty: on.plus, redSource: on.plus, blackSource: on.body, blackCasualty: on.body },
};
const crank = { rescue, batteries: [{ rating: FLOODED, state }], engine: ENGINE, seconds: 3 };

/** `npm test` goes through it with each task done once: a script that nothing runs rots. */
const isOnce = process.argv[2] === 'once';

/** Median time of a task over many runs, in milliseconds, after a warm-up. */
function medianMs(most, task) {
  const runs = isOnce ? 1 : most;
  for (let i = 0; i < Math.min(runs - 1, 5); i++) task();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    task();
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)];
}

const print = (name, text) => process.stdout.write(`${name.padEnd(44)} ${text}\n`);

if (process.argv[2] === 'belief') {
  benchBelief(core, medianMs, print);
  process.exit(0);
}
await findNgspice();

const folder = mkdtempSync(join(tmpdir(), 'voltrek-bench-'));
const netlist = join(folder, 'crank.cir');
writeFileSync(netlist, core.toSpice(crank));
const spiceRun = () =>
  execFileSync('ngspice', ['-b', '-r', join(folder, 'crank.raw'), netlist], { stdio: 'ignore' });
// Turn by turn, so that a machine that slows down slows both.
const rounds = Array.from({ length: isOnce ? 1 : 15 }, () => {
  const ours = medianMs(60, () => core.simulateCrank(crank));
  const start = performance.now();
  spiceRun();
  const spice = performance.now() - start;
  return { ours, spice, ratio: spice / ours };
});
const middle = (of) => rounds.map(of).sort((a, b) => a - b)[Math.floor(rounds.length / 2)];
rmSync(folder, { recursive: true, force: true });
print(
  '3 s crank in time',
  `${middle((r) => r.ours).toFixed(2)} ms; ngspice process ${middle((r) => r.spice).toFixed(0)} ms; ratio ${middle((r) => r.ratio).toFixed(0)}`,
);

const dc = medianMs(400, () => core.solveDc(core.rescueCircuit(rescue)));
print('DC solution of a whole rescue', `${(dc * 1000).toFixed(0)} us; ${Math.round(1000 / dc)} a second`);
print('quasi-steady crank', `${(medianMs(400, () => core.crankPoint(rescue, ENGINE)) * 1000).toFixed(0)} us`);

const belief = { rating: FLOODED, soc: 0.15, socLow: 0.1, socHigh: 0.2 };
const plan = { rescue, beliefs: [belief], engine: ENGINE, waitMinutes: 0, chargeOnly: false };

/** Cost as something grows, against its first size: 1.00 is growth in proportion. */
function growth(name, sizes, runs, task) {
  let first = null;
  for (const size of sizes) {
    const ms = medianMs(runs, () => task(size));
    first ??= ms / size;
    print(
      `${name}, ${size}`,
      `${ms.toFixed(1)} ms; ${Math.round((size / ms) * 1000)} a second; growth ${(ms / size / first).toFixed(2)}`,
    );
  }
}
const sound = (count) => core.drawSound(count, core.seededRandom(1));
growth('odds of machines', [1000, 2000, 5000, 10_000], 9, (count) =>
  core.startOdds(core.afterWait(plan), ENGINE, sound(count)),
);

const car = {
  id: 'bench',
  maker: 'Bench',
  model: 'Bench',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  batteries: [{ rating: FLOODED, rect: { xMm: 100, yMm: 400, widthMm: 240, lengthMm: 180 } }],
  points: [
    { id: 'plus', kind: 'battery-positive', xMm: 150, yMm: 490, battery: 0 },
    { id: 'ground', kind: 'ground-point', xMm: 1400, yMm: 500 },
  ],
  engine: ENGINE,
};
const batteries = core.casualtyBatteries(car, [11.9], TEMP_C);
const packOf = (i) => ({
  kind: 'lithium-pack',
  id: `p${i}`,
  peakAmps: 800,
  peakSeconds: 3,
  charge: 0.8,
  leads: LEADS,
});
growth('sources ranked', [5, 10, 20, 40], 15, (count) =>
  core.rankOptions(
    car,
    Array.from({ length: count }, (_, i) => packOf(i)),
    batteries,
    TEMP_C,
    core.DEFAULT_RULES,
  ),
);
const donor = {
  kind: 'donor',
  id: 'd',
  modelId: 'bench',
  systemVolts: 12,
  battery: DONOR,
  soc: 0.95,
  alternatorSpareAmps: 60,
};
const setOf = (i) => ({ kind: 'lead-set', id: `l${i}`, leads: LEADS });
growth('donor options ranked', [5, 10, 20], 9, (count) =>
  core.rankOptions(
    car,
    [donor, ...Array.from({ length: count }, (_, i) => setOf(i))],
    batteries,
    TEMP_C,
    core.DEFAULT_RULES,
  ),
);
growth('minutes of a wait curve', [4, 8, 16], 5, (minutes) => core.waitCurve(plan, minutes, sound(200)));
print(
  'lead grid of 50 sets, 200 machines each',
  `${medianMs(3, () => core.leadGrid(plan, sound(200))).toFixed(0)} ms`,
);

const crowd = core.drawCrowd({ ...car, rating: FLOODED, tempC: TEMP_C });
const contracts = await import('../contracts/dist/src/index.js');
const logged = core.recordTry(
  {
    crank: { ...crank, rescue: core.aloneRescue(rescue.casualty, TEMP_C) },
    restSeconds: 2,
    keyOnAmps: 12,
    keyOnSeconds: 1,
    afterSeconds: 14,
    chargingVolts: null,
    stepSeconds: 0.001,
  },
  { random: core.seededRandom(3), volts: 0.01, voltsStep: 0.001 },
);
const csv = contracts.traceFileOf(logged);
const rowsLogged = logged.seconds.length;
const readMs = medianMs(9, () => contracts.readTraceFile(csv));
print(
  'logger file read, 20,000 rows',
  `${readMs.toFixed(0)} ms; ${Math.round((rowsLogged / readMs) * 1000)} rows a second`,
);
print(
  'trace analysed, 20,000 points',
  `${medianMs(15, () => core.analyseTrace(logged, { systemVolts: 12, cylinders: 4 })).toFixed(1)} ms`,
);
const facts = {
  chemistry: 'flooded',
  wakes: false,
  tempC: TEMP_C,
  stops: [],
  restVolts: [12.4],
  earlierFlatCalls: 0,
  diedInService: false,
};
print(
  'verdict with its deciding check',
  `${medianMs(9, () =>
    core.conclude(
      crowd,
      [
        { check: 'symptom', found: 'slow-crank' },
        { check: 'rest', found: 12.4 },
      ],
      facts,
      core.TOOLS,
      core.DEFAULT_RULES,
    ),
  ).toFixed(0)} ms`,
);
benchBelief(core, medianMs, print);
