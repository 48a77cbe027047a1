import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { MIGRATIONS } from './migrations.js';
import { DataError, openDatabase } from './open.js';
import { createSites } from './sites.js';
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
    createSites(first).insert(SMALL_SITE);
    first.close();
    const second = openDatabase(file);
    expect(createSites(second).all().map(({ name }) => name)).toEqual(['Small']);
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
    expect(() => openDatabase(file)).toThrowMatching((error) => error instanceof DataError && error.code === 'newer-schema');
  });

  it('says in one line when the folder cannot be written', () => {
    writeFileSync(join(folder, 'file'), '');
    chmodSync(join(folder, 'file'), 0o400);
    expect(() => openDatabase(join(folder, 'file/a.sqlite'))).toThrowMatching((error) => error instanceof DataError && error.code === 'not-writable' && !error.message.includes('\n'));
  });

  it('stores a site whole or not at all', () => {
    const db = openDatabase(join(folder, 'a.sqlite'));
    const sites = createSites(db);
    expect(() => sites.insert({ ...SMALL_SITE, roles: [{ role: 'accent', swatch: 'Nobody', shade: 0 }] })).toThrowError(/Nobody/);
    expect(sites.all()).toEqual([]);
    expect(db.prepare('SELECT COUNT(*) AS n FROM page').get()).toEqual({ n: 0 });
    db.close();
  });
});
