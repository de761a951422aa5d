import {
  caseFor,
  codeOfCase,
  courseOf,
  debriefOf,
  measureOf,
  RUNG_IDS,
  type RungId,
  SKILL_IDS,
  skillsShown,
  startCase,
  toolRun,
  type World,
} from '../src/practice/index.js';
import { type Crowd, diagnose } from '../src/diagnosis/index.js';
import { worked } from './practice-bots.js';
import { crowdForTests } from './proof-share.js';

const CODE = codeOfCase('order', 3);
const mindOf = ({ practice: { profile } }: World): Crowd => crowdForTests(profile);

/** A run with everything that is told of it. */
function told(code: string, bot?: string) {
  const mind = mindOf(startCase(code));
  const tool = toolRun(code, mind);
  const world = bot ? worked(bot, code, () => mind) : tool;
  const debrief = debriefOf(world, measureOf(tool), mind);
  return {
    mind,
    world,
    debrief,
    course: courseOf(world, mind, debrief),
    skills: skillsShown(world, debrief),
  };
}

describe('the course of a run', () => {
  it('has a point before the first act and one after each finding, each the belief of a job', () => {
    const { mind, world, course } = told(CODE);
    // The driver's words are there from the start.
    const found = world.evidence.length - startCase(CODE).evidence.length;
    expect(found).toBeGreaterThan(5);
    expect(course.points.length).toBe(found + 1);
    expect(course.lessons.length).toBe(world.log.length);
    expect(course.lessons.filter((lesson) => lesson !== null).length).toBe(found);
    const last = course.points.at(-1)!.shares;
    for (const { cause, share } of diagnose(mind, world.evidence))
      expect(last.get(cause)).withContext(cause).toBeCloseTo(share, 9);
    const minutes = course.points.map(({ atMinutes }) => atMinutes);
    expect(minutes).toEqual([...minutes].sort((a, b) => a - b));
  });

  it('names of each finding the suspicion that moved most', () => {
    const { course } = told(CODE);
    const lessons = course.lessons.flatMap((lesson) => lesson ?? []);
    lessons.forEach(({ moved }, i) => {
      const [before, after] = [course.points[i]!.shares, course.points[i + 1]!.shares];
      const moves = [...after].map(([cause, share]) => Math.abs(share - (before.get(cause) ?? 0)));
      expect(Math.abs(moved.after - moved.before)).toBeGreaterThan(Math.max(...moves) - 0.011);
    });
  });

  it('names a better check beside one that tells little, and none beside the tool’s own proposals', () => {
    const asked = told(CODE, 'ask-everything').course.lessons.flatMap((lesson) => lesson?.better ?? []);
    expect(asked.length).toBeGreaterThan(0);
    const own = told(CODE);
    // Rest volts and the look at the case come first whatever they tell: they are of safety.
    const better = own.course.lessons.flatMap((lesson, i) => {
      const { action } = own.world.log[i]!;
      return lesson?.better && action.kind === 'check' && !['rest', 'case'].includes(action.check)
        ? [`${action.check}: ${lesson.better.check}`]
        : [];
    });
    expect(better.length).toBeLessThan(own.world.evidence.length / 2);
  });

  it('tells the moment from which the run could not be passed: of a blind one the first clamp, of a good one none', () => {
    const blind = told(CODE, 'blind');
    const clamp = blind.world.log.find(
      ({ action }) =>
        action.kind === 'hands' && action.action.kind === 'attach' && /Casualty$/.test(action.action.clamp),
    );
    expect(clamp).toBeDefined();
    expect(blind.course.lost).toEqual({ failing: 'polarity-unread', atMinutes: clamp!.atMinutes });
    const own = told(CODE);
    expect(own.debrief.passed).toBeTrue();
    expect(own.course.lost).toBeNull();
  });
});

describe('skills of a run', () => {
  it('are all there in a run of the tool that passes', () => {
    for (const rung of ['order', 'charging', 'string', 'stop', 'waking'] as const) {
      const { debrief, skills } = told(codeOfCase(rung, 3));
      if (!debrief.passed) continue;
      expect(skills.filter(({ good }) => !good))
        .withContext(rung)
        .toEqual([]);
      expect(skills.length).toBeGreaterThan(2);
    }
  });

  it('are missing where a habit leaves them out', () => {
    const { skills } = told(CODE, 'blind');
    const good = new Map(skills.map((skill) => [skill.id, skill.good]));
    expect(good.get('polarity')).toBeFalse();
    expect(good.get('stops')).toBeFalse();
    expect(good.get('reading')).toBeFalse();
    // It never met a string or a small battery.
    expect(good.has('strings')).toBeFalse();
    expect(good.has('small-batteries')).toBeFalse();
  });

  it('have a case each that asks for them, and another rung at the next attempt', () => {
    const fresh = (): number => 1;
    for (const skill of SKILL_IDS) {
      const { rung, number } = caseFor(skill, 0, fresh);
      expect(RUNG_IDS).withContext(skill).toContain(rung);
      expect(number).toBeGreaterThanOrEqual(1);
    }
    const holds = ({ rung, number }: { rung: RungId; number: number }): readonly string[] =>
      startCase(codeOfCase(rung, number)).practice.hidden.holds;
    expect(holds(caseFor('charging', 0, fresh))).toContain('charging');
    expect(holds(caseFor('charging', 1, fresh))).toContain('charging');
    expect(caseFor('charging', 1, fresh).rung).not.toBe(caseFor('charging', 0, fresh).rung);
    expect(caseFor('charging', 0, () => 50).number).toBeGreaterThanOrEqual(50);
  });
});
