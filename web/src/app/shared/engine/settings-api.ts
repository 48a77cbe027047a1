import type { SettingsPlan, SettingsSheet } from '@upper-veneer/core';

/** What the worker answers of settings sheets. */
export interface SettingsApi {
  /** What the fields of sheets are to hold, by the palette of the open site. */
  planSettings(sheets: readonly SettingsSheet[]): readonly SettingsPlan[];
}
