import 'reflect-metadata';
import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app';
import { appConfig } from './app.config';

// In a task of its own, after the one in which all that was imported ran.
setTimeout(() => bootstrapApplication(App, appConfig).catch((error: unknown) => console.error(error)));
