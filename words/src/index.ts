export type { Language } from './language.js';
export { EN } from './languages/en.js';
export type { Code, Message, MessageValue } from './message.js';
export { Speaker, say, speak, wordsOf } from './say.js';
export { spoken, type Spoken } from './spoken.js';
