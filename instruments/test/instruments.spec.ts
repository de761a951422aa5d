import { connect, type AddressInfo, type Server, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { type Cause, type DiagnosisProfile, drawHidden, restVoltsOf } from '@voltrek/core/diagnosis';
import { codeOfMade, startCase } from '@voltrek/core/practice';
import { seededRandom } from '@voltrek/core/quantities';
import { meterServer } from '../src/meter.js';
import { scpiFigure } from '../src/scpi.js';
import { testerServer } from '../src/tester.js';
import { parseSetup, type Setup, worldOf } from '../src/truth.js';
import { observe, weatherServer } from '../src/weather.js';

const PROFILE: DiagnosisProfile = {
  machineClass: 'car',
  systemVolts: 12,
  engine: { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
  rating: { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' },
  tempC: -4,
};
const setupOf = (cause: Cause, more: Partial<Setup> = {}): Setup => ({
  profile: PROFILE,
  cause,
  seed: 4,
  check: 'rest',
  battery: 0,
  phase: 'still',
  helped: false,
  ...more,
});

async function listening(server: Server): Promise<number> {
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return (server.address() as AddressInfo).port;
}

/** Asks an instrument over its real socket. */
async function talkTo(server: Server) {
  const socket: Socket = connect(await listening(server), '127.0.0.1');
  const lines = createInterface(socket)[Symbol.asyncIterator]();
  const tell = (line: string): void => {
    socket.write(`${line}\n`);
  };
  const ask = async (line: string): Promise<string> => {
    tell(line);
    return ((await lines.next()) as { value: string }).value;
  };
  const end = (): void => {
    socket.destroy();
    server.close();
  };
  return { tell, ask, end };
}

describe('scpi', () => {
  it('writes figures the standard way', () => {
    expect(scpiFigure(11.92)).toBe('+1.19200000E+01');
    expect(scpiFigure(-0.0035)).toBe('-3.50000000E-03');
    expect(scpiFigure(9.9e37)).toBe('+9.90000000E+37');
  });

  it('takes long and short forms in any case, and queues errors for what it does not know', async () => {
    const { ask, tell, end } = await talkTo(meterServer('meter', () => 0));
    expect(await ask('*IDN?')).toContain('Stand-in multimeter');
    expect(Number(await ask('MEASURE:VOLTAGE:DC?'))).toBeCloseTo(0, 1);
    expect(Number(await ask('meas:volt:dc?'))).toBeCloseTo(0, 1);
    tell('MEAS:RES?');
    tell('SAMP:COUN many');
    expect(await ask('SYST:ERR?')).toBe('-113,"Undefined header"');
    expect(await ask('SYST:ERR?')).toContain('-220');
    expect(await ask('SYST:ERR?')).toBe('0,"No error"');
    end();
  });
});

describe('meter', () => {
  it('reads the hidden battery within its noise', async () => {
    const setup = setupOf('discharged');
    const truth = restVoltsOf(drawHidden('discharged', PROFILE, seededRandom(setup.seed)), PROFILE)[0]!;
    const { ask, tell, end } = await talkTo(meterServer('meter', () => 0));
    tell(`SIM:SET ${JSON.stringify(setup)}`);
    expect(Math.abs(Number(await ask('MEAS:VOLT:DC?')) - truth)).toBeLessThan(0.03);
    tell('SIM:SET {"cause":"none"}');
    expect(await ask('SYST:ERR?')).not.toContain('No error');
    end();
  });

  it('fills its fast buffer in time and gives each point once', async () => {
    let now = 0;
    const { ask, tell, end } = await talkTo(meterServer('meter', () => now));
    tell(`SIM:SET ${JSON.stringify(setupOf('worn', { check: 'crank', phase: 'cranking' }))}`);
    tell('SAMP:TIM 0.002');
    tell('SAMP:COUN 3000');
    tell('INIT');
    expect(await ask('DATA:POIN?')).toBe('0');
    now = 4;
    expect(await ask('DATA:POIN?')).toBe('2000');
    const first = (await ask('DATA:REM? 2000')).split(',').map(Number);
    expect(first.length).toBe(2000);
    // Contact after a second and a half: the lowest comes then.
    expect(Math.min(...first.slice(700, 800))).toBeLessThan(Math.min(...first.slice(0, 600)) - 1);
    now = 60;
    expect(await ask('DATA:POIN?')).toBe('1000');
    expect((await ask('DATA:REM? 5000')).split(',').length).toBe(1000);
    tell('DATA:REM? 1');
    expect(await ask('SYST:ERR?')).toContain('-230');
    end();
  });
});

describe('the world behind the instruments', () => {
  it('drops volts over a bad joint only while current flows', () => {
    const still = worldOf(setupOf('joint-positive', { check: 'joint-plus' }));
    const cranking = worldOf(setupOf('joint-positive', { check: 'joint-plus', phase: 'cranking' }));
    const sound = worldOf(setupOf('none', { check: 'joint-plus', phase: 'cranking' }));
    expect(still.volts(2)).toBe(0);
    expect(cranking.volts(3)).toBeGreaterThan(0.5);
    expect(sound.volts(3)).toBeLessThan(0.3);
  });

  it('draws a parked drain through the clamp, and nothing much without one', () => {
    expect(worldOf(setupOf('drain')).amps(0)).toBeGreaterThan(0.1);
    expect(worldOf(setupOf('none')).amps(0)).toBeLessThan(0.05);
  });

  it('charges once it runs, and not with a charging fault', () => {
    const running = { check: 'charging', phase: 'running' } as const;
    expect(worldOf(setupOf('none', running)).volts(0)).toBeGreaterThan(13.6);
    const faulty = [1, 2, 3, 4].map((seed) => worldOf(setupOf('charging', { ...running, seed })).volts(0));
    expect(faulty.every((v) => v < 13.6 || v > 15)).toBeTrue();
  });

  it('shows the helper at the posts while help is joined, before, during and after a try', () => {
    for (const seed of [1, 2, 3, 5, 141])
      for (const phase of ['still', 'cranking'] as const) {
        const { volts } = worldOf(setupOf('left-on', { seed, phase, helped: true, check: 'crank' }));
        for (let seconds = 0; seconds < 6; seconds += 0.1)
          expect(volts(seconds)).withContext(`${seed} ${phase} ${seconds}`).toBeGreaterThan(9);
      }
  });

  it('never shows less than nothing at the posts of a battery that is only flat', () => {
    for (const seed of [1, 2, 3, 4, 5, 6, 141]) {
      const { volts } = worldOf(setupOf('left-on', { seed, phase: 'cranking', check: 'crank' }));
      for (let seconds = 0; seconds < 6; seconds += 0.1) expect(volts(seconds)).toBeGreaterThanOrEqual(0);
    }
  });

  it('refuses a setup it does not know', () => {
    expect(() => parseSetup('{"cause":"gremlins"}')).toThrow();
    expect(() => parseSetup('{"code":"nowhere-1","actions":[]}')).toThrowError(/no case/);
    expect(parseSetup(JSON.stringify(setupOf('worn')))).toEqual(setupOf('worn'));
  });

  it('plays a case of practice as it stands: what is in it, and what is held nowhere', () => {
    const code = codeOfMade({ machineClass: 'car', cause: 'worn', tempC: 4 }, 3);
    const { machine, hidden, profile } = startCase(code).practice;
    const idOf = (kind: string): string => machine.points.find((p) => p.kind === kind)!.id;
    const probes = { red: idOf('battery-positive'), black: idOf('battery-negative') };
    const at = { code, actions: [], probes, around: null };
    // By hand: a battery that nothing is on shows what it rests at.
    expect(worldOf(at).volts(0)).toBeCloseTo(restVoltsOf(hidden, profile)[0]!, 2);
    expect(worldOf({ ...at, probes: null }).volts(0)).toBe(0);
    expect(worldOf(at).ratedAmps).toBe(profile.rating.ccaAmps);
    const asleep = worldOf({ ...at, actions: [{ kind: 'wait', minutes: 10 }], around: 'own-cable' as const });
    const awake = worldOf({ ...at, around: 'own-cable' as const });
    expect(awake.amps(0)).toBeLessThan(asleep.amps(0) - 2);
  });
});

describe('tester', () => {
  it('finds a worn battery weaker than a sound one, and says when there is none', async () => {
    const { ask, tell, end } = await talkTo(testerServer());
    tell('MEAS:CCA?');
    expect(await ask('SYST:ERR?')).toContain('-241');
    tell(`SIM:SET ${JSON.stringify(setupOf('worn'))}`);
    const worn = Number(await ask('MEAS:CCA?'));
    tell(`SIM:SET ${JSON.stringify(setupOf('none'))}`);
    const sound = Number(await ask('MEAS:CCA?'));
    expect(worn).toBeLessThan(sound * 0.85);
    expect(Number(await ask('MEAS:COND?'))).toBeGreaterThan(sound);
    end();
  });
});

describe('weather', () => {
  it('is colder before dawn than after noon, and the same each time it is asked', () => {
    const at = (hour: number) => observe('Fish quay', new Date(Date.UTC(2027, 0, 15, hour)));
    expect(at(5).tempC).toBeLessThan(at(14).tempC);
    expect(at(5)).toEqual(at(5));
  });

  it('answers over HTTP, and names what is wrong', async () => {
    const server = weatherServer();
    const base = `http://127.0.0.1:${await listening(server)}`;
    const told = (await (await fetch(`${base}/observation?place=Fish%20quay`)).json()) as { tempC: number };
    expect(told.tempC).toBeGreaterThan(-20);
    expect((await fetch(`${base}/observation`)).status).toBe(400);
    expect((await fetch(`${base}/else`)).status).toBe(404);
    server.close();
  });
});
