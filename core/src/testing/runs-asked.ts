const host = (globalThis as { readonly process?: { readonly env?: Readonly<Record<string, string | undefined>> } })
  .process;

/** How many draws a spec makes: those an environment variable asks for, else `usual`; few in a browser, which has no such variables. */
export function runsAsked(variable: string, usual: number, inBrowser = usual): number {
  return host?.env ? Number(host.env[variable] ?? usual) : inBrowser;
}
