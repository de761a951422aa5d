import { messagesOf } from '../messages-of';

/** Words of the exam, one list a part. */

export const EXAM_PAGE = messagesOf('examPage');

export const EXAM_PDF = messagesOf('examPdf');
