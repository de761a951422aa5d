import { type Shown, tell } from '../tell';

/** Words of the exam, one list a part. */

export const EXAM_PAGE = {
  exam: 'Exam',
  ladder: 'The ladder',
  what: (cases: Shown, minutes: Shown) =>
    tell`${cases} cases, ${minutes} minutes by the clock, no hints. Who could have hurt somebody has not passed; one case may be got wrong.`,
  number: 'Number of the exam',
  numberRange: (most: Shown) =>
    tell`A whole number from 1 to ${most}. The same number is the same exam to everybody.`,
  begin: 'Begin the exam',
  sayWho: 'Say first who works on this device.',
  underWay: (number: Shown, name: Shown) => tell`Exam ${number}, ${name}`,
  left: (minutes: Shown) => tell`${minutes} min left`,
  caseOf: (place: Shown) => tell`Case ${place}`,
  notBegun: 'not begun',
  begun: 'under way',
  given: 'verdict given',
  open: 'Open',
  openCase: (place: Shown) => tell`Open case ${place}`,
  end: 'End the exam',
  endTitle: 'End the exam?',
  endText: (open: Shown) => tell`${open} cases have no verdict yet. What is not given counts as wrong.`,
  goOn: 'Go on with it',
  marking: 'Marking: the tool works the same cases.',
  waits: 'It waits on this device for the server.',
  taken: 'Exams taken',
  none: 'None yet.',
  line: (number: Shown, day: Shown) => tell`exam ${number}, ${day}`,
  passed: 'passed',
  notPassed: 'not passed',
  tooLate: 'not passed: out of time',
  right: (right: Shown, all: Shown) => tell`${right} of ${all} right`,
  signedBy: (name: Shown) => tell`signed by ${name}`,
  notSigned: 'not signed',
  sign: 'Sign it',
  signNamed: (number: Shown, name: Shown) => tell`Sign exam ${number} of ${name}`,
  pdf: 'PDF',
  pdfNamed: (number: Shown, name: Shown) => tell`PDF of exam ${number} of ${name}`,
  json: 'JSON',
  jsonNamed: (number: Shown, name: Shown) => tell`JSON of exam ${number} of ${name}`,
  skills: 'How each skill sits',
  skillsSummary: (weakest: Shown) =>
    tell`Share of exam cases passed, by person and skill. Weakest of the crew: ${weakest}.`,
  timeIsOver: 'The time is over: nothing more is done in it.',
  noneUnderWay: 'No exam is under way here.',
} as const;

export const EXAM_PDF = {
  title: (number: Shown) => tell`Exam ${number}`,
  took: (start: Shown, minutes: Shown) => tell`${start}, ${minutes} minutes`,
  skill: 'Skill',
  verdict: 'Verdict given',
  truth: 'What it was',
  minutes: 'Minutes, tool',
  result: 'Result',
  right: 'right',
  noVerdict: 'none',
  signature: 'Crew lead',
  signedOn: (name: Shown, day: Shown) => tell`Signed by ${name}, ${day}`,
  minutesOf: (own: Shown, tool: Shown) => tell`${own}, ${tool}`,
} as const;
