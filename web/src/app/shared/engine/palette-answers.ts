import {
  HARMONIES,
  colorOfCss,
  harmonyOf,
  harmonyRoles,
  hexOf,
  pairMatrix,
  paletteAsSeen,
  proposeRoles,
  readyPalette,
} from '@upper-veneer/core';
import type { PaletteApi, ReadyPalettes, SuggestedRoles, SuggestionStart } from './palette-api';

/** What the worker answers of palettes. */
export function paletteAnswers(): PaletteApi {
  let ready: Promise<ReadyPalettes> | null = null;
  return {
    judgePalette: (palette, severity) => ({ pairs: pairMatrix(palette), seen: paletteAsSeen(palette, severity) }),
    suggestRoles,
    readyPalettes: () =>
      (ready ??= readReady().catch((error: unknown) => {
        // Where they could not be fetched they are asked for again.
        ready = null;
        throw error;
      })),
  };
}

function suggestRoles({ ground, ink, accent, own, lighting }: SuggestionStart): SuggestedRoles {
  return {
    roles: ground && ink && accent ? proposeRoles({ ground, ink, accent }, lighting) : null,
    harmonies: HARMONIES.flatMap((harmony) => {
      const partners = own ? harmonyOf(own, harmony) : [];
      if (!own || partners.length === 0) return [];
      const roles = ground && ink ? harmonyRoles({ ground, ink, accent: own }, partners, lighting) : null;
      return [{ harmony, hexes: partners.map(hexOf), roles }];
    }),
  };
}

async function readReady(): Promise<ReadyPalettes> {
  const sets = (await import('nice-color-palettes/500.json')).default as readonly (readonly string[])[];
  const passing = sets.flatMap((hexes) => {
    const found = readyPalette(hexes.flatMap((hex) => colorOfCss(hex) ?? []));
    return found ? [{ hexes, roles: found.roles }] : [];
  });
  return { of: sets.length, passing };
}
