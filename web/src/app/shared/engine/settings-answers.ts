import { planSettings, type SiteModel } from '@upper-veneer/core';
import type { SettingsApi } from './settings-api';

/** What the worker answers of settings sheets, for the site it has open. */
export function settingsAnswers(opened: () => SiteModel): SettingsApi {
  return { planSettings: (sheets) => sheets.map((sheet) => planSettings(sheet, opened().palette)) };
}
