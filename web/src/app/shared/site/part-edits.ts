import { type Spoken, wordsOf } from '@upper-veneer/words';
import type { PartsRequest, SiteDocument } from '@upper-veneer/contract';
import type { PartProposal } from '@upper-veneer/core';

/** A part as the site document has it. */
export type EditedPart = SiteDocument['parts'][number];
type Part = EditedPart;

function toRequest(label: string, parts: readonly Part[], merged: PartsRequest['merged'] = []): PartsRequest {
  return {
    label: label.slice(0, 200),
    parts: parts.map(({ templates, ...part }) => ({
      ...part,
      openers: part.openers.map((opener) => ({ ...opener })),
      ...(templates
        ? { templates: templates.map(({ name, acts }) => ({ name, acts: acts.map((act) => ({ ...act })) })) }
        : {}),
    })),
    merged,
  };
}

/** A part changed. */
export function withPart(parts: readonly Part[], id: number, edit: Partial<Omit<Part, 'id'>>): PartsRequest {
  const before = parts.find((part) => part.id === id);
  const label =
    edit.name === undefined
      ? wordsOf('screen.change-part', { name: before?.name ?? '' })
      : wordsOf('screen.rename', { name: before?.name ?? '', name2: edit.name });
  return toRequest(
    label,
    parts.map((part) => (part.id === id ? { ...part, ...edit } : part)),
  );
}

/** A part taken away; overrides in it stay. */
export function withoutPart(parts: readonly Part[], id: number): PartsRequest {
  return toRequest(
    wordsOf('screen.take-away-part', { name: parts.find((part) => part.id === id)?.name ?? '' }),
    parts.filter((part) => part.id !== id),
  );
}

/** Proposals taken in, under names nobody has. */
export function withProposals(parts: readonly Part[], proposals: readonly Spoken<PartProposal>[]): PartsRequest {
  const taken = new Set(parts.map(({ name }) => name.toLowerCase()));
  const added = proposals.map(({ name, kind, selector, openers }): Part => {
    let own = name.slice(0, 56);
    for (let number = 2; taken.has(own.toLowerCase()); number += 1) own = `${name.slice(0, 54)} ${number}`;
    taken.add(own.toLowerCase());
    return { id: 0, name: own, kind, selector, openers };
  });
  return toRequest(wordsOf('screen.take-part-take-parts', { added: added.length, name: added[0].name }), [
    ...parts,
    ...added,
  ]);
}

/** One part merged into another: one selector for both, and the overrides of both. */
export function withMerge(parts: readonly Part[], from: number, into: number): PartsRequest | null {
  const source = parts.find((part) => part.id === from);
  const target = parts.find((part) => part.id === into);
  if (!source || !target || from === into) return null;
  const merged = {
    ...target,
    selector: `${target.selector}, ${source.selector}`,
    openers: [...target.openers, ...source.openers],
  };
  return toRequest(
    wordsOf('screen.merge-into', { name: source.name, name2: target.name }),
    parts.filter(({ id }) => id !== from).map((part) => (part.id === into ? merged : part)),
    [{ from, into }],
  );
}
