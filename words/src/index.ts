export { errorText } from './error-text.js';
export type { Language } from './language.js';
export { LANGUAGES, MARKED, MARKS, languageFor } from './languages.js';
export { EN } from './languages/en.js';
export { inner, keyOf, message, type Code, type Message, type MessageValue } from './message.js';
export { Speaker, figure, moment, say, speak, wordsOf, type Moment } from './say.js';
export { isTold, spoken, type Spoken } from './spoken.js';
