import { sheetSpans } from '@upper-veneer/core';
import type { Db } from './db.js';

/** A change of the schema: SQL, or what does it with foreign keys off. */
export type Migration = string | ((db: Db) => void);

/** Schema changes, oldest first; append only. `user_version` counts those applied. */
export const MIGRATIONS: readonly Migration[] = [
  `
  CREATE TABLE site (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    prefix TEXT NOT NULL DEFAULT 'brand',
    veneer_place TEXT NOT NULL DEFAULT 'head-end' CHECK (veneer_place IN ('head-end', 'body-end')),
    version INTEGER NOT NULL DEFAULT 0
  ) STRICT;
  CREATE TABLE page (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    path TEXT NOT NULL,
    html TEXT NOT NULL,
    UNIQUE (site_id, path)
  ) STRICT;
  CREATE TABLE asset (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    path TEXT NOT NULL,
    media_type TEXT NOT NULL,
    body BLOB NOT NULL,
    PRIMARY KEY (site_id, path)
  ) STRICT;
  CREATE TABLE part (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    kind TEXT NOT NULL,
    selector TEXT NOT NULL
  ) STRICT;
  CREATE TABLE swatch (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    css TEXT NOT NULL
  ) STRICT;
  CREATE TABLE role (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    role TEXT NOT NULL,
    swatch_id INTEGER NOT NULL REFERENCES swatch (id),
    shade INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (site_id, role)
  ) STRICT;
  CREATE TABLE override (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    id TEXT NOT NULL,
    part_id INTEGER REFERENCES part (id) ON DELETE SET NULL,
    page_id INTEGER NOT NULL REFERENCES page (id),
    element INTEGER NOT NULL,
    pseudo TEXT NOT NULL,
    reach TEXT NOT NULL,
    state TEXT NOT NULL,
    property TEXT NOT NULL,
    value TEXT NOT NULL,
    selector TEXT NOT NULL,
    important INTEGER NOT NULL,
    PRIMARY KEY (site_id, id)
  ) STRICT;
  CREATE TABLE change (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    label TEXT NOT NULL,
    before TEXT NOT NULL,
    after TEXT NOT NULL,
    undone INTEGER NOT NULL DEFAULT 0,
    made_at TEXT NOT NULL
  ) STRICT;
  CREATE INDEX change_by_site ON change (site_id, undone, id);
  CREATE TABLE revision (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    number INTEGER NOT NULL,
    note TEXT NOT NULL,
    css TEXT NOT NULL,
    overrides TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    PRIMARY KEY (site_id, number)
  ) STRICT;
  CREATE TABLE publication (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL,
    revision INTEGER NOT NULL,
    published_at TEXT NOT NULL,
    FOREIGN KEY (site_id, revision) REFERENCES revision (site_id, number) ON DELETE CASCADE
  ) STRICT;
  `,
  `
  -- The veneer may follow a named sheet; null while it stands where veneer_place says.
  ALTER TABLE site ADD COLUMN veneer_after TEXT;
  -- Counts what changes the pages, sheets or parts themselves.
  ALTER TABLE site ADD COLUMN structure INTEGER NOT NULL DEFAULT 0;
  ALTER TABLE page ADD COLUMN source TEXT NOT NULL DEFAULT '';
  -- Places of the page's stylesheets, as captured, in the order they are to have; null for the captured order.
  ALTER TABLE page ADD COLUMN sheet_order TEXT;
  ALTER TABLE part ADD COLUMN openers TEXT NOT NULL DEFAULT '[]';
  CREATE TABLE left_out (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    path TEXT NOT NULL,
    reason TEXT NOT NULL,
    PRIMARY KEY (site_id, position)
  ) STRICT;
  CREATE TABLE exception (
    id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('color', 'place')),
    target TEXT NOT NULL,
    reason TEXT NOT NULL
  ) STRICT;
  `,
  `
  -- What an override is kept to besides its reach: a parent, widths, pages, matches left out; JSON, null for nothing.
  ALTER TABLE override ADD COLUMN kept_to TEXT;
  `,
  `
  -- What the draft compiled to before it was tidied: a draft equals a revision by that.
  ALTER TABLE revision ADD COLUMN plain_css TEXT NOT NULL DEFAULT '';
  UPDATE revision SET plain_css = css;
  `,
  `
  -- Colours as plain values instead of custom properties, and names of roles that differ from their own.
  ALTER TABLE site ADD COLUMN as_values INTEGER NOT NULL DEFAULT 0;
  ALTER TABLE site ADD COLUMN role_names TEXT NOT NULL DEFAULT '{}';
  `,
  `
  -- Whether rules for hover are kept to devices that hover.
  ALTER TABLE site ADD COLUMN hover_only INTEGER NOT NULL DEFAULT 0;
  `,
  `
  -- Name of a swatch's custom property once it has been published.
  ALTER TABLE swatch ADD COLUMN token TEXT;
  `,
  neverNumberAgain,
  `
  -- Whether a revision holds the sheet as it was compiled, since tidying took too long or failed.
  ALTER TABLE revision ADD COLUMN untidied INTEGER NOT NULL DEFAULT 0;
  `,
  `
  -- What is settled of matching a scope, both as JSON.
  CREATE TABLE match_plan (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    scope TEXT NOT NULL,
    choices TEXT NOT NULL,
    PRIMARY KEY (site_id, scope)
  ) WITHOUT ROWID;
  `,
  `
  -- How the second lighting is told, as JSON; null for a site of one lighting.
  ALTER TABLE site ADD COLUMN second_told TEXT;
  -- Roles of the second lighting that are set by hand; the others are derived.
  CREATE TABLE inverted_role (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    role TEXT NOT NULL,
    swatch_id INTEGER NOT NULL REFERENCES swatch (id),
    shade INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (site_id, role)
  ) STRICT;
  -- Where a swatch came from and what was noted of it; whether a role was filled by the product and not confirmed yet.
  ALTER TABLE swatch ADD COLUMN origin TEXT NOT NULL DEFAULT '';
  ALTER TABLE swatch ADD COLUMN note TEXT NOT NULL DEFAULT '';
  ALTER TABLE role ADD COLUMN assumed INTEGER NOT NULL DEFAULT 0;
  `,
  `
  -- Corner radius, edge width, shadow and type families of the brand, as JSON.
  ALTER TABLE site ADD COLUMN house_shape TEXT NOT NULL DEFAULT '{}';
  `,
  `
  -- Pages as they were before they were captured again: their sheets that changed and the overrides of then, both as JSON.
  CREATE TABLE former_capture (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
    html TEXT NOT NULL,
    stylesheets TEXT NOT NULL,
    overrides TEXT NOT NULL,
    captured_at TEXT NOT NULL
  ) STRICT;
  CREATE INDEX former_capture_by_site ON former_capture (site_id, id);
  CREATE INDEX former_capture_by_page ON former_capture (page_id, id);
  -- Parts on pages that were looked at by eye, with what they looked like then; part 0 is what stands in none.
  CREATE TABLE looked (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    part_id INTEGER NOT NULL,
    page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
    step TEXT NOT NULL,
    look TEXT NOT NULL,
    looked_at TEXT NOT NULL,
    PRIMARY KEY (site_id, part_id, page_id, step)
  ) WITHOUT ROWID;
  -- How many things failed, and how many were to be looked at, when a revision was proved; null where it was not.
  ALTER TABLE revision ADD COLUMN fails INTEGER;
  ALTER TABLE revision ADD COLUMN to_look_at INTEGER;
  `,
  keepSheetSpans,
  `
  -- Colours of an older brand that are to go, as JSON.
  ALTER TABLE site ADD COLUMN former_colors TEXT NOT NULL DEFAULT '[]';
  `,
  `
  -- What a revision's sheet was compiled from beside its overrides, as JSON: palette, naming and parts; null for those saved before.
  ALTER TABLE revision ADD COLUMN basis TEXT;
  `,
  `
  -- What opens the draft's stylesheet to a page elsewhere; null while it is switched off.
  ALTER TABLE site ADD COLUMN live_secret TEXT;
  CREATE UNIQUE INDEX site_by_live_secret ON site (live_secret);
  `,
  `
  -- CSS of the designer's own, a section of the sheet each, as JSON.
  ALTER TABLE site ADD COLUMN own_css TEXT NOT NULL DEFAULT '[]';
  `,
  `
  -- What the client asked for, as JSON.
  ALTER TABLE site ADD COLUMN requests TEXT NOT NULL DEFAULT '[]';
  `,
  `
  -- Whether each publication has an address of its own, and for how many seconds caches may keep a file.
  ALTER TABLE site ADD COLUMN host_new_name INTEGER NOT NULL DEFAULT 1;
  ALTER TABLE site ADD COLUMN host_max_age INTEGER NOT NULL DEFAULT 300;
  `,
  `
  -- Finished matches of parts, by role, for any site; as JSON.
  CREATE TABLE kit (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    kept_at TEXT NOT NULL,
    body TEXT NOT NULL
  ) STRICT;
  `,
  `
  -- Drafts whose last steps were undone and written over, so that they are found again.
  CREATE TABLE left_draft (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    left_at TEXT NOT NULL,
    label TEXT NOT NULL,
    steps INTEGER NOT NULL,
    count INTEGER NOT NULL,
    overrides TEXT NOT NULL,
    basis TEXT NOT NULL
  ) STRICT;
  CREATE INDEX left_draft_by_site ON left_draft (site_id, id);
  `,
  `
  -- An older engine that the sheet is to reach, empty for none; and whether its declarations stand by their letters.
  ALTER TABLE site ADD COLUMN flat_for TEXT NOT NULL DEFAULT '';
  ALTER TABLE site ADD COLUMN by_letters INTEGER NOT NULL DEFAULT 0;
  `,
  `
  -- Names that swatches were published under. They outlive their swatch, which undo may take away and bring back.
  CREATE TABLE published_name (
    swatch_id INTEGER PRIMARY KEY,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    token TEXT NOT NULL
  ) STRICT;
  INSERT INTO published_name SELECT id, site_id, token FROM swatch WHERE token IS NOT NULL;
  `,
  `
  -- Settings sheets of parts as JSON, what was handed over of them, and what the makers of the stand-in host were told.
  ALTER TABLE site ADD COLUMN settings TEXT NOT NULL DEFAULT '[]';
  CREATE TABLE handed_setting (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    part_id INTEGER NOT NULL,
    field TEXT NOT NULL,
    text TEXT NOT NULL,
    handed_at TEXT NOT NULL,
    PRIMARY KEY (site_id, part_id, field)
  ) STRICT;
  CREATE TABLE maker_setting (
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    widget TEXT NOT NULL,
    name TEXT NOT NULL,
    value TEXT NOT NULL,
    PRIMARY KEY (site_id, widget, name)
  ) STRICT;
  `,
  `
  -- Forks of drafts, trials that hold them against each other, what the stand-in host counted of them, and what was counted elsewhere or made up.
  CREATE TABLE variation (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    name TEXT NOT NULL,
    revision INTEGER NOT NULL,
    settings TEXT NOT NULL,
    made_at TEXT NOT NULL
  ) STRICT;
  CREATE INDEX variation_by_site ON variation (site_id, id);
  CREATE TABLE trial (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    name TEXT NOT NULL,
    state TEXT NOT NULL,
    body TEXT NOT NULL,
    proofs TEXT NOT NULL,
    made_at TEXT NOT NULL,
    started_at TEXT,
    decision TEXT
  ) STRICT;
  CREATE INDEX trial_by_site ON trial (site_id, id);
  CREATE TABLE trial_event (
    id TEXT PRIMARY KEY,
    trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
    variation TEXT NOT NULL,
    -- -1 for seen, else which conversion.
    kind INTEGER NOT NULL,
    day TEXT NOT NULL
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX trial_event_by_trial ON trial_event (trial_id, kind, day, variation);
  CREATE TABLE trial_count (
    trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
    source TEXT NOT NULL,
    conversion INTEGER NOT NULL,
    day TEXT NOT NULL,
    variation TEXT NOT NULL,
    seen INTEGER NOT NULL,
    pressed INTEGER NOT NULL,
    PRIMARY KEY (trial_id, source, conversion, day, variation)
  ) STRICT;
  `,
  `
  -- Forms that parts can come in, as JSON, and the one each is in.
  ALTER TABLE part ADD COLUMN templates TEXT NOT NULL DEFAULT '[]';
  ALTER TABLE part ADD COLUMN template TEXT NOT NULL DEFAULT '';
  `,
  `
  -- How pages were visited, and which they are, as JSON.
  CREATE TABLE visit (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
    plan TEXT NOT NULL,
    paths TEXT NOT NULL
  ) STRICT;
  CREATE INDEX visit_by_site ON visit (site_id);
  `,
];

/** Where stylesheets stand in the source of pages that have an order of their own: read once, instead of at every reading. */
function keepSheetSpans(db: Db): void {
  db.exec('ALTER TABLE page ADD COLUMN sheet_spans TEXT');
  const put = db.prepare<[string, number]>('UPDATE page SET sheet_spans = ? WHERE id = ?');
  const pages = db
    .prepare<[], { id: number; html: string }>('SELECT id, html FROM page WHERE sheet_order IS NOT NULL')
    .all();
  for (const { id, html } of pages) put.run(JSON.stringify(sheetSpans(html)), id);
}

/** Tables whose numbers others keep: addresses, histories, caches. */
const NUMBERED = ['site', 'page', 'part', 'swatch', 'change', 'exception', 'publication'] as const;
/** Numbers that the history may still speak of, though their rows are gone. */
const SPOKEN_OF = 1000;

/** Makes numbers of rows that are gone stay gone. Source: https://www.sqlite.org/autoinc.html, and lang_altertable.html §7 for the steps. */
function neverNumberAgain(db: Db): void {
  for (const table of NUMBERED) {
    const { sql } = db
      .prepare<[string], { sql: string }>("SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?")
      .get(table) ?? { sql: '' };
    const indexes = db
      .prepare<[string], { sql: string }>(
        "SELECT sql FROM sqlite_master WHERE type = 'index' AND tbl_name = ? AND sql IS NOT NULL",
      )
      .all(table);
    db.exec(
      sql
        .replace(/^CREATE TABLE "?\w+"?/, `CREATE TABLE ${table}_next`)
        .replace('id INTEGER PRIMARY KEY', 'id INTEGER PRIMARY KEY AUTOINCREMENT'),
    );
    db.exec(
      `INSERT INTO ${table}_next SELECT * FROM ${table}; DROP TABLE ${table}; ALTER TABLE ${table}_next RENAME TO ${table};`,
    );
    for (const index of indexes) db.exec(index.sql);
  }
  db.prepare("UPDATE sqlite_sequence SET seq = seq + ? WHERE seq > 0 AND name IN ('page', 'part', 'swatch')").run(
    SPOKEN_OF,
  );
}
