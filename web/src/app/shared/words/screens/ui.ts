import { type Shown, tell } from '../tell';

/** Words of the screens of ui, one list a part. */

export const IMPORT_DIALOG = {
  import: (name: Shown) => tell`Import ${name}`,
  fileJsonOrCsvInUtf: 'File, JSON or CSV in UTF-8',
  nothingIsImportedWhileALine: 'Nothing is imported while a line is at fault:',
  line: (line: Shown) => tell`Line ${line}`,
  imported: 'Imported.',
  wouldChange: 'Would change:',
  newChangedTheSame: (wouldChange: Shown, added: Shown, changed: Shown, same: Shown) =>
    tell`${wouldChange} ${added} new, ${changed} changed, ${same} the same.`,
  newWord: 'new',
  changes: (join: Shown) => tell`changes ${join}`,
  import2: 'Import',
  close: 'Close',
  leaveIt: 'Leave it',
} as const;

export const NUMBER_PAD = {
  numberPad: 'Number pad',
  changeSign: 'Change sign',
  deleteLast: 'Delete last',
} as const;

export const RATING_FAULT = {
  capacity: 'Capacity',
  coldCrankingAmps: 'Cold-cranking amps',
} as const;

export const REASON_PROMPT = {
  reasonKeptInTheLog: 'Reason, kept in the log',
  goOnAndLogIt: 'Go on, and log it',
  leaveIt: 'Leave it',
} as const;

export const ZOOM_PAN = {
  drawingAndBringItNearerArrows: 'Drawing: + and - bring it nearer, arrows move it, 0 fits it',
  nearer: 'Nearer',
  farther: 'Farther',
  fit: 'Fit',
} as const;
