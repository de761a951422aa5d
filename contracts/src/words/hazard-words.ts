import type { Hazard, HazardCode, Severity, Story } from '@voltrek/core/hookup';
import { mirroredWords } from './mirrored-words.js';

const amps = (h: Hazard): string => `${(h.amps ?? 0).toFixed(0)} A`;
const volts = (h: Hazard): string => `${(h.volts ?? 0).toFixed(1)} V`;

/** The name of a hazard: the word stands before any colour. */
export const SEVERITY_WORDS: Record<Severity, string> = { note: 'Note', watch: 'Watch', severe: 'Stop' };

/** Every hazard in words: why, with its figures, and the way out. On the wire of the command line and on the screen alike. */
export const HAZARD_WORDS: Record<
  HazardCode,
  { readonly why: (hazard: Hazard) => string; readonly wayOut: string }
> = {
  'machine-not-secured': {
    why: () =>
      'A clamp on the starter’s stud passes by its locks: a slip turns the engine, in whatever gear it is.',
    wayOut: 'Gear out, brake on, wheels or tracks chocked, nobody in front; then the clamp.',
  },
  'spark-in-gas': {
    why: (h) => `${volts(h)} and ${amps(h)} at this contact, where gas may be.`,
    wayOut: 'Air it, look away, one clean move; or use a point away from the battery.',
  },
  'hard-spark': {
    why: (h) => `It sparks: ${volts(h)} across, ${amps(h)} when it touches. No gas here.`,
    wayOut: 'Clamp on in one move, and do not let it chatter.',
  },
  spike: {
    why: (h) => `${amps(h)} flow in this lead; breaking them lifts the volts for a moment.`,
    wayOut: 'Switch a big consumer on first.',
  },
  'dead-short': {
    why: (h) => `A dead short: ${amps(h)}, the source falls to ${volts(h)}.`,
    wayOut: 'Do not make it. If it is made: open the end that is away from the battery at once.',
  },
  reversed: {
    why: (h) => `Backwards: ${volts(h)} at the posts, ${amps(h)} until a fuse opens.`,
    wayOut:
      'Off, and prove polarity with the meter. If it was joined so: look at the main and alternator fuses, and read the charging volts once it runs, its diodes may be gone.',
  },
  'over-voltage': {
    why: (h) => `${volts(h)} on control units that do not stand it.`,
    wayOut: 'Use a source of the same volts.',
  },
  'over-voltage-source': {
    why: (h) => `${volts(h)} would be pushed into the source.`,
    wayOut: 'Put it across one battery only, or use a source of the same volts.',
  },
  'unequal-sources': {
    why: (h) => `Joined at unequal volts: ${amps(h)} flow between them.`,
    wayOut: 'Equalise through a resistor or lamp first.',
  },
  'over-charges-battery': {
    why: (h) => `${amps(h)} into this battery, more than its size takes.`,
    wayOut: 'Engine off, or leave it joined for moments only.',
  },
  'live-free-clamp': {
    why: (h) => `A free clamp is live: ${amps(h)} if it touches metal.`,
    wayOut: 'Keep it in the hand, off everything.',
  },
  'two-live-free-clamps': {
    why: (h) => `Two free clamps are live: ${amps(h)} if they meet.`,
    wayOut: 'Hold them apart, one in each hand, or lay one down on dry rubber.',
  },
  'armed-too-early': {
    why: () => 'Live while a clamp is free: no guard checks what it touches next.',
    wayOut: 'Off first, both clamps on, look at the lamp, then on.',
  },
  'plugged-too-early': {
    why: () => 'The charger is plugged in while a clamp is free.',
    wayOut: 'Unplug it, clamp, then plug in.',
  },
  'source-still-on': {
    why: () => 'The source is still on: this contact is live.',
    wayOut: 'Switch off, unplug, then touch the clamps.',
  },
  'will-short': {
    why: (h) => `Wrong place: the last clamp will close a short of ${amps(h)}.`,
    wayOut: 'Take it off and find its own place.',
  },
  'will-reverse': {
    why: (h) => `Wrong place: the last clamp will put ${volts(h)} on backwards.`,
    wayOut: 'Take it off and prove polarity.',
  },
  'will-over-voltage': {
    why: (h) => `The last clamp will put ${volts(h)} where less is stood.`,
    wayOut: 'Stop: the volts of both sides do not agree.',
  },
  'crank-on-charger': {
    why: () => 'An ordinary charger must never see a crank.',
    wayOut: 'Off, unplug, clamps off, then crank.',
  },
  'crank-with-free-clamp': {
    why: () => 'A clamp hangs free and the engine will shake it.',
    wayOut: 'Finish the hook-up, or take every clamp off.',
  },
  'over-current': {
    why: (h) => `${amps(h)} asked of a source that stands less.`,
    wayOut: 'Use a stronger source.',
  },
  'leads-too-hot': {
    why: (h) => `${amps(h)} heat these leads past what their cover stands.`,
    wayOut: 'Short tries with long rests, or thicker leads.',
  },
  'ev-donor-running': {
    why: () => 'A running donor puts its volts and spikes on control units of an EV or hybrid.',
    wayOut: 'Donor off throughout.',
  },
  'ev-as-donor': {
    why: () => "An EV's converter is not made to feed a starter.",
    wayOut: 'Use a pack or another donor.',
  },
  'clamps-touch': {
    why: (h) => `Two clamps meet: ${amps(h)}.`,
    wayOut: 'Part them at once, at the source end.',
  },
  'tool-short': {
    why: (h) => `From here to the body: ${amps(h)} through the tool.`,
    wayOut: 'Cover the post, keep tools off it. The whole body is negative.',
  },
  'positive-first': {
    why: (h) => `A spanner on plus that touches body carries ${amps(h)}.`,
    wayOut: 'Negative off first.',
  },
  'loosened-while-joined': {
    why: () => 'The battery comes off while the leads are on: the volts of the source go where they like.',
    wayOut: 'Clear down first.',
  },
  'lithium-from-outside': {
    why: () => 'A lithium battery that its maker gives no points for.',
    wayOut: 'Not from outside: only its own charger.',
  },
  'load-dump': {
    why: (h) =>
      `The engine runs and its battery would be off: nothing holds the alternator, which can rise to ${volts(h)} at once.`,
    wayOut: 'Engine off first. Its own battery stays on while it runs.',
  },
  'source-charged': {
    why: (h) => `The running engine charges this source: ${amps(h)} into it at ${volts(h)}.`,
    wayOut: 'Off with it as soon as the engine runs; bare cells never see a running engine.',
  },
  'battery-over-voltage': {
    why: (h) => `${volts(h)} on one battery: more than a battery stands.`,
    wayOut: 'Put a 12 V source across one battery, 24 V across the whole string.',
  },
  'string-uneven': {
    why: (h) =>
      `${volts(h)} on one battery of the string, and less on the others: they do not share alike what goes through them.`,
    wayOut: 'Minutes only, and read each of them. Charge each battery by itself.',
  },
  'bank-over-voltage': {
    why: (h) => `The bank of capacitors would stand at ${volts(h)}, above what its cells stand together.`,
    wayOut: 'Bleed it down through a lamp first, and not on this machine.',
  },
  'two-regulators': {
    why: () => 'Both engines run and are joined: two regulators work against each other.',
    wayOut: 'For moments only. Donor off, then the leads.',
  },
  'battery-reversed': {
    why: (h) => `This battery rests at ${volts(h)}: it has been charged the wrong way round.`,
    wayOut: 'Join nothing to it. It is replaced; look for what reversed it.',
  },
  'battery-frozen': {
    why: (h) =>
      `At ${volts(h)} this battery freezes before the air does: ice in it bursts when current flows.`,
    wayOut: 'Join nothing, crank nothing. Warm it through indoors, look for cracks, then measure again.',
  },
  'closed-in-charging': {
    why: () => 'This battery stands closed in, and charging makes gas.',
    wayOut: 'Use the posts in the bay, or take it out.',
  },
  'on-pipe': {
    why: () =>
      'A pipe that carries fuel, brake fluid or refrigerant: a spark or the heat of a crank opens it.',
    wayOut: 'Off. Use the ground point, or clean solid metal of the engine.',
  },
  'on-moving-part': {
    why: () => 'Fan, belt and pulleys are here: once it fires they take the lead along.',
    wayOut: 'Off. Use a point clear of everything that turns.',
  },
  'on-thin-sheet': {
    why: () => 'Painted, thin or hinged metal: it carries little and burns where it does.',
    wayOut: 'Use the ground point, or clean solid metal of the engine.',
  },
  'on-bare-post': {
    why: () => 'On the lead of the post itself: soft, and the clamp slips off it.',
    wayOut: 'Clamp the bracket that is tightened on it.',
  },
  'past-the-sensor': {
    why: () =>
      'Behind the sensor on the minus post: this current is not counted, and the vehicle loses track of its charge.',
    wayOut: 'Use the ground point, on the body side of the sensor.',
  },
  'wrong-system': {
    why: (h) => `This is the ${(h.volts ?? 0).toFixed(0)} V system beside the 12 V one.`,
    wayOut: 'Off. Find the 12 V point that is marked.',
  },
  'closes-nothing': {
    why: (h) => `All is on and ${(h.amps ?? 0).toFixed(1)} A flow: this metal is not joined to the battery.`,
    wayOut: "Close the main switch, or use the battery's own minus or a bonded stud.",
  },
  'laid-on-metal': {
    why: (h) => `Laid on bare metal it drives ${amps(h)}.`,
    wayOut: 'Keep it in the hand or on dry rubber.',
  },
  'vehicles-touch': {
    why: (h) =>
      `The vehicles touch: ${amps(h)} go through hinges and bearings now, and the last clamp is no longer the one that closes the circuit.`,
    wayOut: 'Move one of them a hand away first.',
  },
  'may-move': {
    why: () => 'It can move when the starter turns.',
    wayOut: 'Gear out, brake on, wheels chocked.',
  },
  'engine-runs': {
    why: () => 'Its engine runs: fan, belts and exhaust are where the hands are.',
    wayOut: 'Stop it, or keep sleeves and leads clear.',
  },
  'revs-raised': {
    why: () => 'At raised revs its alternator answers a broken lead with a leap of volts.',
    wayOut: 'Back to idle, then take it off.',
  },
  'still-fed': {
    why: (h) => `The plus stays live without its own battery: ${amps(h)} through a spanner to the body.`,
    wayOut: 'Cover the plus clamp, or take off what feeds it first.',
  },
  'positive-earth': {
    why: () => 'Its plus is on the body: this order would join plus to minus.',
    wayOut:
      'Nothing is joined by this order. A source that stands by itself can help once the atlas has it so: minus first, and red last on the body.',
  },
  'link-short': {
    why: (h) => `The link lies across one battery: ${amps(h)}.`,
    wayOut: 'Off. From the minus of one to the plus of the other, and no further.',
  },
  'not-all-off': {
    why: () => 'Key, lamps and consumers have not been seen off: one of them makes the first contact spark.',
    wayOut: 'Everything off, key out, then the first clamp.',
  },
  'guard-not-seen': {
    why: () => 'Nobody looked at the guard lamp: it knows polarity before the current does.',
    wayOut: 'Look at the lamp first.',
  },
  'cells-not-ready': {
    why: () =>
      'Bare cells that nobody bagged and read: nothing in them stops a wrong clamp, and a fire of theirs is not put out.',
    wayOut: 'Off. Bag them, read them, watch them, then on.',
  },
  'alternator-at-limit': {
    why: (h) =>
      `The flat battery takes all that the donor’s alternator has to spare, ${amps(h)}: it runs hot.`,
    wayOut: 'Idle, and minutes only. A charger does the rest.',
  },
  'source-tripped': {
    why: (h) => `It switched itself off. Joined so, ${amps(h)} were asked of it before any crank.`,
    wayOut: 'Clamps where they belong? Nothing shorted? Then a larger source, or minutes of charge first.',
  },
};

const STORY_WORDS: Readonly<Record<Story, string>> = {
  'strong-battery': ' Worst case: a strong battery.',
  'cells-shorted': ' Worst case: shorted cells.',
  'uneven-string': ' Worst case: one old battery in the string.',
};

/** Why a hazard is one, with its figures and what they rest on. */
export const hazardWhy = (hazard: Hazard): string =>
  toldOf(hazard, HAZARD_WORDS[hazard.code].why(hazard) + (hazard.story ? STORY_WORDS[hazard.story] : ''));

/** The act against it. */
export const hazardWayOut = (hazard: Hazard): string => toldOf(hazard, HAZARD_WORDS[hazard.code].wayOut);

const toldOf = ({ isMirrored }: Hazard, words: string): string => (isMirrored ? mirroredWords(words) : words);

/** A hazard in one line. */
export const hazardLine = (hazard: Hazard): string =>
  `${SEVERITY_WORDS[hazard.severity]}: ${hazardWhy(hazard)} ${hazardWayOut(hazard)}`;
