import { message } from '../message/message.js';

/** Why what lies under a text cannot be told from the CSS alone: each told by one and the same message. */
export const PICTURE_UNDER = message('ground.picture-lies-under');
export const CLIPPED_TO_TEXT = message('ground.fill-clipped-text');
export const FILTER_OVER = message('ground.filter-or-blend-lies');
