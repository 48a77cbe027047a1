import { createServer } from 'node:http';
import { join } from 'node:path';
import { writeFileSync } from 'node:fs';
import { runToEnd, startProduct, temporaryFolder } from '../support/product.js';

describe('starting', () => {
  it('says in one line that a port is in use', async () => {
    const other = createServer();
    const port = await new Promise<number>((done) =>
      other.listen(0, '127.0.0.1', () => done((other.address() as { port: number }).port)),
    );
    const folder = temporaryFolder();
    const { code, output } = await runToEnd({ PORT: String(port), HOST_PORT: '0', DATA_DIR: folder.path });
    expect(code).toBe(1);
    expect(output).toBe(`Port ${port} is in use. Set PORT to a free port and start again.\n`);
    other.close();
    folder.remove();
  });

  it('says in one line that the data folder cannot be written', async () => {
    const folder = temporaryFolder();
    writeFileSync(join(folder.path, 'file'), '');
    const { code, output } = await runToEnd({ PORT: '0', DATA_DIR: join(folder.path, 'file/inside') });
    expect(code).toBe(1);
    expect(output.trim().split('\n').length).toBe(1);
    expect(output).toContain('Set DATA_DIR');
    folder.remove();
  });

  it('refuses a port that is none', async () => {
    const { code, output } = await runToEnd({ PORT: 'harbour' });
    expect([code, output]).toEqual([1, 'PORT must be a port number from 0 to 65535, not "harbour".\n']);
  });

  it('prints one address and ends cleanly on Ctrl-C', async () => {
    const folder = temporaryFolder();
    const product = await startProduct(folder.path);
    product.process.removeAllListeners('exit');
    const code = await new Promise((done) => {
      product.process.on('exit', done);
      product.process.kill('SIGINT');
    });
    expect(code).toBe(0);
    expect(product.output().match(/http:/g)?.length).toBe(1);
    folder.remove();
  });
});
