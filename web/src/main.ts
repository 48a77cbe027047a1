import './app/shared/language/speak-on-screen';
import { figure } from '@upper-veneer/words';

/**
 * Reads what the product is made of part by part, each in a task of its own, so that no one of them is long: the browser's tables
 * of the language, the framework, the grammar of CSS, then the product. What says something when it is loaded comes after the
 * language is chosen.
 */
async function start(): Promise<void> {
  for (const read of [
    () => Promise.resolve(figure(0)),
    () => import('./app/early/framework'),
    () => import('./app/early/grammar'),
    () => import('./app/start'),
  ]) {
    await new Promise((done) => setTimeout(done));
    await read();
  }
}

void start();
