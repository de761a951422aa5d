import { messagesOf } from '../messages-of';

/** Words of the screens of figures, one list a part. */

export const FIGURES_PAGE = messagesOf('figuresPage');
