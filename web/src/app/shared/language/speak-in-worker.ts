import { languageFor, speak } from '@upper-veneer/words';

// A worker is named by the language that is spoken where it is started.
speak(languageFor([self.name]));
