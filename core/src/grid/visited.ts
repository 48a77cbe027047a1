import { message, type Message } from '../message/message.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { VISITED_LONGHANDS } from '../properties/longhands.js';

/** Why other properties of a visited link cannot be changed. */
export const CLOSED_TO_VISITED: Message = message('grid.closed-to-visited');

/** Whether a property can be changed for visited links. */
export function isOpenToVisited(property: string): boolean {
  return longhandsOfProperty(property).every((longhand) => VISITED_LONGHANDS.has(longhand));
}
