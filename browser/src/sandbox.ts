/** Whether a browser is started in its own sandbox: it cannot be as root, and not where the machine does not allow one. */
export function isSandboxed(): boolean {
  return process.getuid?.() !== 0 && process.env['BROWSER_SANDBOX'] !== 'off';
}
