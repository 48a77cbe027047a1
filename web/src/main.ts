import './app/shared/language/speak-on-screen';

// What says something when it is loaded comes after the language is chosen.
void import('./app/start');
