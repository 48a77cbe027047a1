import type { SettingField } from '@upper-veneer/core';

/** A maker's page of settings, with what stands in each field now; what was told last stands above. */
export function settingsForm(
  widget: string,
  fields: readonly Omit<SettingField, 'id'>[],
  held: ReadonlyMap<string, string>,
  told: string,
): string {
  const rows = fields.map((field) => {
    const value = held.get(field.name) ?? field.present;
    const name = `name="${escaped(field.name)}"`;
    const input =
      field.notation === 'preset'
        ? `<select ${name}>${field.presets.map((preset) => `<option${preset.name === value ? ' selected' : ''}>${escaped(preset.name)}</option>`).join('')}</select>`
        : `<input ${name} value="${escaped(value)}" maxlength="200" autocomplete="off">`;
    return `<p><label>${escaped(field.name)} ${input}</label></p>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Settings of ${escaped(widget)}</title>
<style>body { font: 15px/1.5 sans-serif; margin: 24px; } label { display: grid; gap: 3px; max-width: 320px; }</style></head>
<body><h1>Settings of ${escaped(widget)}</h1>${told === '' ? '' : `<p role="status">${escaped(told)}</p>`}
<form method="post">${rows.join('\n')}<button>Keep</button></form></body></html>`;
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;');
}
