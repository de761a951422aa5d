import { messagesOf } from '../messages-of';

/** Words of the screens of kit, one list a part. */

export const CREW_PART = messagesOf('crewPart');

export const KIT_DIALOG = messagesOf('kitDialog');

export const KIT_FIELDS = messagesOf('kitFields');

export const KIT_PAGE = messagesOf('kitPage');
