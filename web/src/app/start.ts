import 'reflect-metadata';
import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app.config';
import { Root } from './root';

// In a task of its own, after the one in which all that was imported ran.
setTimeout(() => bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error)));
