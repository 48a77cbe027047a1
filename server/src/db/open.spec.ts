import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { MIGRATIONS } from './migrations.js';
import { DataError, openDatabase } from './open.js';
import { storeSite } from '../captures.js';
import { createStore } from '../store.js';
import { SMALL_SITE } from '../testing/test-site.js';

describe('openDatabase', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'uv-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('makes the folder and the schema, and keeps what is there', () => {
    const file = join(folder, 'deep/er/a.sqlite');
    const first = openDatabase(file);
    storeSite(createStore(first), SMALL_SITE);
    first.close();
    const second = openDatabase(file);
    expect(
      createStore(second)
        .sites.all()
        .map(({ name }) => name),
    ).toEqual(['Small']);
    expect(second.pragma('user_version', { simple: true })).toBe(MIGRATIONS.length);
    expect(second.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(second.pragma('foreign_keys', { simple: true })).toBe(1);
    second.close();
  });

  it('refuses a database that a newer version wrote', () => {
    const file = join(folder, 'new.sqlite');
    const db = new Database(file);
    db.pragma('user_version = 999');
    db.close();
    expect(() => openDatabase(file)).toThrowMatching(
      (error) => error instanceof DataError && error.code === 'newer-schema',
    );
  });

  it('says in one line when the folder cannot be written', () => {
    writeFileSync(join(folder, 'file'), '');
    chmodSync(join(folder, 'file'), 0o400);
    expect(() => openDatabase(join(folder, 'file/a.sqlite'))).toThrowMatching(
      (error) => error instanceof DataError && error.code === 'not-writable' && !error.message.includes('\n'),
    );
  });

  it('stores a site whole or not at all', () => {
    const db = openDatabase(join(folder, 'a.sqlite'));
    const store = createStore(db);
    expect(() =>
      storeSite(store, { ...SMALL_SITE, roles: [{ role: 'accent', swatch: 'Nobody', shade: 0 }] }),
    ).toThrowError(/Nobody/);
    const [page] = SMALL_SITE.pages;
    // Found when half of it is stored.
    expect(() => storeSite(store, { ...SMALL_SITE, pages: [page, { ...page, name: 'Again' }] })).toThrowError(
      /index\.html/,
    );
    expect(store.sites.all()).toEqual([]);
    expect(db.prepare('SELECT COUNT(*) AS n FROM page').get()).toEqual({ n: 0 });
    db.close();
  });

  it('keeps everything when the numbers of rows come to be kept', () => {
    const file = join(folder, 'old.sqlite');
    const old = new Database(file);
    const before = MIGRATIONS.slice(
      0,
      MIGRATIONS.findIndex((step) => typeof step !== 'string'),
    ) as string[];
    for (const step of before) old.exec(step);
    old.pragma(`user_version = ${before.length}`);
    // Rows in the columns of then; what came later is filled by itself.
    old.exec(`
      INSERT INTO site (id, name, prefix) VALUES (7, 'Osier & Reed', 'or');
      INSERT INTO page (id, site_id, position, name, path, html) VALUES (3, 7, 0, 'Home', 'index.html', '<p>Reeds</p>');
      INSERT INTO asset (site_id, path, media_type, body) VALUES (7, 'theme.css', 'text/css', x'707b7d');
      INSERT INTO part (id, site_id, position, name, kind, selector) VALUES (5, 7, 0, 'Header', 'region', 'header');
      INSERT INTO swatch (id, site_id, position, name, css) VALUES (9, 7, 0, 'Willow', '#b4582a');
      INSERT INTO role (site_id, role, swatch_id, shade) VALUES (7, 'accent', 9, -8);
    `);
    const id = 7;
    const rows = (db: InstanceType<typeof Database>): object[] =>
      ['site', 'page', 'part', 'swatch', 'role', 'asset'].map(
        (table) => db.prepare(`SELECT * FROM ${table}`).get() ?? {},
      );
    const stored = rows(old);
    old.close();
    const db = openDatabase(file);
    expect(stored.every((row) => Object.keys(row).length > 3)).toBeTrue();
    expect(rows(db)).toEqual(stored.map((row) => jasmine.objectContaining(row) as object));
    expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
    const store = createStore(db);
    store.sites.drop(id);
    expect(db.prepare('SELECT COUNT(*) AS n FROM page').get()).toEqual({ n: 0 });
    expect(storeSite(store, SMALL_SITE)).toBeGreaterThan(id);
    db.close();
  });

  it('never gives the number of a row that is gone to another', () => {
    const db = openDatabase(join(folder, 'a.sqlite'));
    const store = createStore(db);
    const first = storeSite(store, SMALL_SITE);
    const [page] = store.pages.bySite(first);
    store.sites.drop(first);
    const second = storeSite(store, { ...SMALL_SITE, name: 'Second' });
    expect(second).toBeGreaterThan(first);
    expect(store.pages.bySite(second)[0].id).toBeGreaterThan(page.id);
    db.close();
  });

  it('says of a damaged database what it is, and leaves it alone', () => {
    const file = join(folder, 'bad.sqlite');
    writeFileSync(file, 'This was never a database. '.repeat(200));
    expect(() => openDatabase(file)).toThrowMatching(
      (error) => error instanceof DataError && error.code === 'damaged' && error.message.includes(file),
    );
    expect(readFileSync(file, 'utf8')).toBe('This was never a database. '.repeat(200));
  });
});
