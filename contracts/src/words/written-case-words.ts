import { MADE_COLD, WRITTEN_LENGTHS, WRITTEN_NUMBER, type WrittenFault } from '@voltrek/core/practice';

/** Why a written case cannot be played, said of the part that it is told beside. */
export const WRITTEN_FAULT_WORDS: Readonly<Record<WrittenFault, string>> = {
  'unknown-machine': 'no class of machine is called so',
  'cold-out-of-range': `from ${MADE_COLD.min} to ${MADE_COLD.max} °C, in whole figures`,
  'number-out-of-range': `from ${WRITTEN_NUMBER.min} to ${WRITTEN_NUMBER.max}`,
  'fault-not-of-machine': 'such a machine cannot have this fault',
  'along-not-of-machine': 'this cannot come along with that fault on such a machine',
  'unknown-symptom': 'no driver’s word is called so',
  'unknown-question': 'nobody is asked this about such a machine',
  'unknown-answer': 'this is no answer to that question',
  'unknown-kit': 'no such kit, or named twice',
  'text-too-long': `a title has ${WRITTEN_LENGTHS.title} characters at the most, a driver’s words ${WRITTEN_LENGTHS.says}`,
  'no-text': 'it needs a title',
  'text-broken': 'a sign of it is broken',
};

/** Why a file is no written case at all. */
export const WRITTEN_FILE_WORDS = {
  notJson: 'this is no JSON from here on',
  tooLarge: 'a case has a few thousand characters; this has more',
} as const;
