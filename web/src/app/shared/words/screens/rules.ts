import { messagesOf } from '../messages-of';

/** Words of the screens of rules, one list a part. */

export const BACKUPS_PART = messagesOf('backupsPart');

export const RULES_PAGE = messagesOf('rulesPage');
