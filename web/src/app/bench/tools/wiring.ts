import { batteryOhms, batteryOpenVolts, type BatteryRating } from '@voltrek/core/battery';
import type { Rescue } from '@voltrek/core/circuit';
import { crankPoint } from '@voltrek/core/crank';
import { ENGINE_RANGES, type Fuel } from '@voltrek/core/engine';
import { type ClampContact, type Conductor, LEAD_RANGES, leadSetOhms } from '@voltrek/core/leads';
import { leadRiseC } from '@voltrek/core/plan';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { type BenchTool, choice, figure, number } from '../tool';

const { ambientC } = TYPED_RANGES;
/** A usual rescue to try leads on: a flat battery of a mid-size car, and a healthy donor that runs. */
const FLAT: BatteryRating = { chemistry: 'flooded', capacityAh: 70, ccaAmps: 640, ccaStandard: 'EN' };
const FLAT_SOC = 0.05;
const DONOR: BatteryRating = { chemistry: 'agm', capacityAh: 95, ccaAmps: 850, ccaStandard: 'EN' };
const DONOR_SOC = 0.95;
const DONOR_ALTERNATOR = { volts: 14.2, maxAmps: 60 };

export const leadsTool: BenchTool = {
  id: 'leads',
  fields: [
    number('sectionMm2', 25, LEAD_RANGES.sectionMm2.min, LEAD_RANGES.sectionMm2.max, 'mm²'),
    number('lengthM', 3.5, LEAD_RANGES.lengthM.min, LEAD_RANGES.lengthM.max, 'm'),
    choice('conductor', ['copper', 'copper-clad-aluminium']),
    choice('contact', ['clean', 'worn', 'poor']),
    number('amps', 200, 1, 3000, 'A'),
    number('seconds', 10, 0.1, 120, 's'),
    number('tempC', 0, ambientC.min, ambientC.max, '°C'),
    choice('fuel', ['petrol', 'diesel']),
    number('displacementL', 1.6, ENGINE_RANGES.displacementL.min, 8, 'L'),
  ],
  curve: { kind: 'sweep', over: 'sectionMm2', results: ['rpm', 'neededRpm'], from: 4, to: 70 },
  compute: (given) => {
    const leads = {
      sectionMm2: given.number('sectionMm2'),
      lengthM: given.number('lengthM'),
      conductor: given.choice('conductor') as Conductor,
      contact: given.choice('contact') as ClampContact,
    };
    const amps = given.number('amps');
    const tempC = given.number('tempC');
    const displacementL = given.number('displacementL');
    const engine = {
      fuel: given.choice('fuel') as Fuel,
      displacementL,
      cylinders: displacementL > 2.5 ? 6 : 4,
      systemVolts: 12,
    } as const;
    const flat = { soc: FLAT_SOC, tempC, ageing: 1.3 };
    const lending = { soc: DONOR_SOC, tempC, ageing: 1.2 };
    const plus = { kind: 'plus', battery: 0 } as const;
    const body = { kind: 'body' } as const;
    const rescue: Rescue = {
      casualty: [{ openVolts: batteryOpenVolts(FLAT, flat), ohms: batteryOhms(FLAT, flat) }],
      load: { kind: 'none' },
      source: {
        openVolts: batteryOpenVolts(DONOR, lending),
        ohms: batteryOhms(DONOR, lending),
        alternator: DONOR_ALTERNATOR,
      },
      sourceOn: true,
      leads,
      tempC,
      clamps: { redCasualty: plus, redSource: plus, blackSource: body, blackCasualty: body },
    };
    const crank = crankPoint(rescue, engine);
    const loop = leadSetOhms(leads, tempC);
    return [
      figure('lostVolts', amps * loop, 2, 'V', amps * loop > 2 ? 'bad' : amps * loop > 1 ? 'watch' : 'good'),
      figure('loopOhms', loop * 1000, 1, 'mohm'),
      figure('riseC', leadRiseC(leads, amps, given.number('seconds'), tempC), 1, 'K'),
      figure('rpm', crank.rpm, 0, 'rpm', crank.rpm >= crank.neededRpm ? 'good' : 'bad'),
      figure('neededRpm', crank.neededRpm, 0, 'rpm'),
      figure('starterVolts', crank.starterVolts, 1, 'V'),
    ];
  },
};
