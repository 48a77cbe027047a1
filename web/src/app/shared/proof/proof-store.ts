import { moment, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import type { FileReading, ReportFacts } from '@upper-veneer/core';
import { Engine } from '../engine/engine';
import type { PlacePicture } from '../engine/place-picture';
import type { FindingView, MendView, ProofView } from '../engine/proof-api';
import { withProgress } from '../engine/with-progress';
import type { FramedPage } from '../frame/framed-page';
import { DraftEdits } from '../site/draft-edits';
import { LightingSwitch } from '../site/lighting-switch';
import { PageMeasuring } from '../site/page-measuring';
import { SiteStore } from '../site/site-store';
import { downloadText, fileNameOf } from '../ui/download-text';
import { PictureInks } from '../picture/picture-inks';
import { readPictures } from './read-pictures';
import { drawParts, type PartToDraw } from './part-pictures';

/** Pages that are laid out, at most; on the others what is read is held against the fills of its ancestors. */
const MOST_MEASURED = 12;
/** Frames that are laid out for it, at most: pages times widths, the widest of all pages first. */
const MOST_LAID = 60;
/** Picture files whose inks are read, at most. */
const MOST_FILES = 60;
/** Parts that a report shows. */
const MOST_DRAWN = 14;
/** A change waits so long for the next before the site is looked at again, ms. */
const PAUSE_MS = 400;

/** How far the drawing of pictures is. */
export interface PicturesDrawn {
  readonly done: number;
  readonly of: number;
}

export type ProofState =
  | { readonly status: 'none' }
  | { readonly status: 'working'; readonly doing: string; readonly share: number }
  | { readonly status: 'stopped' }
  | { readonly status: 'done' };

/** The proof of the open site: what was found last, kept while it is looked at again after each change. */
@Injectable({ providedIn: 'root' })
export class ProofStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #edits = inject(DraftEdits);
  readonly #lighting = inject(LightingSwitch);
  readonly #measuring = inject(PageMeasuring);
  readonly #inks = inject(PictureInks);
  /** Counts looks begun, so that an older one ends. */
  #run = 0;
  /** Newest revision of the open site as it was seen last. */
  #newest = { site: 0, number: 0 };
  #waiting: ReturnType<typeof setTimeout> | undefined;
  /** Whether somebody looks: only then the site is looked at again by itself. */
  readonly #isWatched = signal(false);

  /** How many of the pictures for a report are drawn; `null` while none are. */
  readonly drawing = signal<PicturesDrawn | null>(null);
  readonly state = signal<ProofState>({ status: 'none' });
  /** Whether the pixels under texts over pictures have been read for what was found last. */
  readonly arePicturesRead = signal(false);
  readonly #found = signal<{ readonly site: number; readonly key: string; readonly proof: ProofView } | null>(null);
  /** What a proof hangs on. */
  readonly #key = this.#site.painted;
  /** What was found last of the open site, before the newest change it may be. */
  readonly proof = computed(() => {
    const found = this.#found();
    return found && found.site === this.#site.site()?.id ? found.proof : null;
  });
  /** Whether it is of the draft as it is. */
  readonly isCurrent = computed(() => this.proof() !== null && this.#found()?.key === this.#key());
  /** What fails of the draft as it is; `null` where nobody has looked since it changed. */
  readonly failing = computed(() => this.counts()?.fails ?? null);

  /** What fails and what is to be looked at of the draft as it is; `null` where nobody has looked since it changed. */
  readonly counts = computed(() => {
    // What the pixels under texts come to belongs to it.
    const findings = this.isCurrent() && this.arePicturesRead() ? this.proof()?.findings : null;
    if (!findings) return null;
    const fails = findings.filter(({ level }) => level === 'fails').length;
    return { fails, toLookAt: findings.length - fails };
  });
  /** The revision whose counts are to be kept: the one the draft is, where it was not proved before; the site may go on, and it with it. */
  readonly #toKeep = computed(
    () => {
      const [counts, draft] = [this.counts(), this.#site.draft()];
      const revision = draft?.revisions.find(({ number }) => number === draft.equalsRevision);
      if (!counts || !revision) return null;
      return revision.proof ? null : { number: revision.number, counts };
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );

  constructor() {
    // A revision just saved is proved once, so that its counts stand beside those before; large sites wait until they are looked at.
    effect(() => {
      const [site, draft] = [this.#site.site(), this.#site.draft()];
      if (!site || !draft) return;
      const newest = draft.revisions.at(0)?.number ?? 0;
      const before = this.#newest.site === site.id ? this.#newest.number : newest;
      this.#newest = { site: site.id, number: newest };
      if (newest > before && draft.equalsRevision === newest && this.#site.captured().length <= MOST_MEASURED)
        untracked(() => {
          if (!this.isCurrent() && this.state().status !== 'working') void this.look();
        });
    });
    effect(() => {
      const kept = this.#toKeep();
      if (kept) untracked(() => this.#edits.keepProof(kept.number, kept.counts).subscribe());
    });
    effect(() => {
      const key = this.#key();
      this.#site.veneer();
      if (!this.#isWatched() || key === '') return;
      untracked(() => {
        if (this.isCurrent() || this.state().status === 'stopped') return;
        clearTimeout(this.#waiting);
        // The first look is not put off.
        this.#waiting = setTimeout(() => void this.look(), this.proof() ? PAUSE_MS : 0);
      });
    });
  }

  /** Keeps the proof up with the draft from now on. */
  watch(): void {
    this.#isWatched.set(true);
  }

  unwatch(): void {
    this.#isWatched.set(false);
  }

  /** Looks at the whole site. */
  async look(): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const run = (this.#run += 1);
    const isWanted = (): boolean => run === this.#run;
    const tell = (doing: string, share: number): void => {
      if (isWanted()) this.state.set({ status: 'working', doing, share });
    };
    const key = this.#key();
    try {
      tell(wordsOf('screen.looking-site'), 0);
      const pages = site.pages
        .slice(0, MOST_MEASURED)
        .map(({ id, name }) => ({ id, name, framed: this.framed(id, '') }));
      const all = await this.#engine.remote.proofWidths();
      const widths = all.slice(0, Math.max(1, Math.floor(MOST_LAID / pages.length)));
      if (!(await this.#measuring.measure(pages, widths, isWanted, (doing, share) => tell(doing, share / 2)))) return;
      const proof = await withProgress(
        ({ done, of }: { readonly done: number; readonly of: number }) =>
          tell(wordsOf('screen.looking-every-state'), 0.5 + done / of / 2),
        (listener) => this.#engine.remote.prove(listener),
      );
      if (!proof || !isWanted()) return;
      this.arePicturesRead.set(false);
      this.#found.set({ site: site.id, key, proof });
      const read = await this.#readPictures(proof, (done, of) => {
        if (of > 0) tell(wordsOf('screen.reading-pixels-pictures'), done / of);
        return isWanted();
      });
      if (!isWanted()) return;
      if (read) this.#found.set({ site: site.id, key, proof: read });
      this.arePicturesRead.set(true);
      this.state.set({ status: 'done' });
    } catch (error) {
      if (!isWanted()) return;
      this.state.set({ status: 'stopped' });
      this.#engine.tell(error);
    }
  }

  /** The proof with what the pixels of pictures come to; `null` when it was stopped. */
  async #readPictures(proof: ProofView, tell: (done: number, of: number) => boolean): Promise<ProofView | null> {
    const { remote } = this.#engine;
    const asks = await remote.pictureAsks();
    const files = (await remote.fileAsks()) ?? [];
    const of = asks.length + Math.min(files.length, MOST_FILES);
    const frameCss = this.#site.veneer().frameCss;
    const framed = (drawn: PlacePicture): FramedPage => this.pictured(drawn, frameCss);
    const texts = await readPictures(asks, remote, framed, (done) => tell(done, of));
    if (!texts) return null;
    const read: FileReading[] = [];
    for (const { path, grounds } of files.slice(0, MOST_FILES)) {
      if (!tell(asks.length + read.length, of)) return null;
      read.push({ path, ...(await this.#inks.read(path, grounds)) });
    }
    return remote.withPictures(proof.run, texts, read);
  }

  stop(): void {
    this.#run += 1;
    clearTimeout(this.#waiting);
    this.state.set({ status: 'stopped' });
    void this.#engine.remote.stopProof();
  }

  /** Takes a mend for all places, as one step of undo. */
  take(finding: FindingView, mend: Extract<MendView, { ok: true }>): void {
    this.#edits
      .change({
        label: wordsOf('screen.mend', { title: finding.title }).slice(0, 200),
        put: [...mend.put],
        drop: [...mend.drop],
      })
      .subscribe();
  }

  /** Leaves a finding alone, with the reason. @returns whether it could be told by a colour or a selector. */
  async leaveAlone(finding: FindingView, reason: string): Promise<boolean> {
    const exception = await this.#engine.remote.exceptionFor(finding.id);
    if (!exception) return false;
    const others = this.#site
      .exceptions()
      .filter(({ kind, target }) => kind !== exception.kind || target !== exception.target);
    this.#edits
      .putExceptions({
        label: wordsOf('screen.leave-alone', { title: finding.title }).slice(0, 200),
        exceptions: [...others, { ...exception, reason }].map((own) => ({ ...own })),
      })
      .subscribe();
    return true;
  }

  /** Hands the proof on as a file: a page for the client, or a table of all places. */
  async report(format: 'html' | 'csv'): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const drawn = format === 'html' ? await this.#pictures() : { pictures: [], unpictured: [] };
    // Whoever stops the drawing wants no report.
    if (!drawn) return;
    const text = await this.#engine.remote.proofReport(format, {
      ...drawn,
      site: site.name,
      at: writtenAt(),
      exceptions: this.#site.exceptions().map(({ target, reason }) => ({ target, reason })),
      revision: this.#site.draft()?.equalsRevision ?? null,
    });
    downloadText(`${fileNameOf(site.name)}-proof.${format}`, format === 'html' ? 'text/html' : 'text/csv', text);
  }

  /** Writes the note for whoever keeps the site on: as one HTML file with its parts in pictures, or as Markdown. */
  async handOver(format: 'html' | 'md'): Promise<void> {
    const [site, draft] = [this.#site.site(), this.#site.draft()];
    if (!site || !draft) return;
    const drawn = format === 'html' ? await this.#pictures() : { pictures: [], unpictured: [] };
    if (!drawn) return;
    const text = await this.#engine.remote.handOver(format, {
      ...drawn,
      site: site.name,
      at: writtenAt(),
      exceptions: this.#site.exceptions().map(({ target, reason }) => ({ target, reason })),
      revision: draft.equalsRevision,
      published: draft.publishedRevision,
      requests: draft.requests,
    });
    const type = format === 'html' ? 'text/html' : 'text/markdown';
    downloadText(`${fileNameOf(site.name)}-hand-over.${format}`, type, text);
  }

  stopDrawing(): void {
    this.drawing.set(null);
  }

  /** Parts as they arrived and as they are, and which are not shown; `null` when it was stopped. */
  async #pictures(): Promise<Pick<ReportFacts, 'pictures' | 'unpictured'> | null> {
    const site = this.#site.site();
    if (!site || this.#site.isEmpty()) return { pictures: [], unpictured: [] };
    this.drawing.set({ done: 0, of: Math.min(MOST_DRAWN, site.parts.length) });
    try {
      const looks = (await this.#engine.remote.partLooks()) ?? [];
      const parts: PartToDraw[] = [];
      for (const { id, name } of site.parts) {
        const look = looks.find((own) => own.partId === id);
        const page = site.pages.find((own) => own.id === look?.pageId);
        if (!look || !page || parts.length === MOST_DRAWN) continue;
        const { partId, pageId, step, element } = look;
        const { amendments } = await this.#engine.remote.lookPicture({ partId, pageId, step, element }, 'rest');
        const framed = { ...this.framed(pageId, this.#site.veneer().frameCss), amendments: new Map(amendments) };
        parts.push({ name, element, page: framed, pageName: page.name });
      }
      const pictures = await drawParts(parts, (done) => {
        if (this.drawing() === null) return false;
        this.drawing.set({ done, of: parts.length });
        return true;
      });
      if (this.drawing() === null) return null;
      const shown = new Set(pictures.map(({ name }) => name));
      return { pictures, unpictured: site.parts.map(({ name }) => name).filter((name) => !shown.has(name)) };
    } finally {
      this.drawing.set(null);
    }
  }

  /** A place as a frame is to show it, with some veneer. */
  pictured({ pageId, amendments, lighting }: PlacePicture, frameCss: string): FramedPage {
    return {
      ...this.framed(pageId, frameCss),
      amendments: new Map(amendments),
      scheme: this.#lighting.schemeIn(lighting),
    };
  }

  /** A page as a frame is to show it, with some veneer. */
  framed(pageId: number, frameCss: string): FramedPage {
    const site = this.#site.site();
    return {
      url: `/frame/sites/${site?.id}/pages/${pageId}/?v=${site?.draft.structure ?? 0}`,
      veneerPlace: site?.veneerPlace ?? 'head-end',
      frameCss,
      amendments: new Map(),
      scheme: this.#lighting.schemeIn('light'),
    };
  }
}

function writtenAt(): string {
  return moment(new Date(), 'long');
}
