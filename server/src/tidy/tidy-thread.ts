import { parentPort, workerData } from 'node:worker_threads';
import { dressSite, openSite, tidySheet } from '@upper-veneer/core';
import type { TidyTask } from './tidy-draft.js';

const { source, overrides, palette } = workerData as TidyTask;
parentPort?.postMessage(tidySheet(dressSite(openSite(source), overrides, palette)).css);
