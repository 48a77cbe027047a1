import { message } from '../message/message.js';
import { cssAddresses } from '../syntax/css-addresses.js';
import type { Override } from '../veneer/override.js';
import { plainCssOfValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import type { Finding } from './finding.js';

/** What an override asks of other hosts, which then see each visitor; neither the preview nor the stand-in host asks them. */
export function outsideFindings(override: Override, palette: Palette): Finding[] {
  const hosts = cssAddresses(`a{b:${plainCssOfValue(override.value, palette)}}`).flatMap(({ address }) => {
    const url = URL.canParse(address, 'file:///') ? new URL(address, 'file:///') : null;
    return url && url.host !== '' && /^(?:https?|wss?|ftp|file):$/.test(url.protocol) ? [url.host] : [];
  });
  if (hosts.length === 0) return [];
  const names = [...new Set(hosts)];
  return [
    {
      standing: 'look',
      text: message('verdict.asks-outside', { count: names.length, first: names[0] }),
      basis: message('verdict.asks-outside-basis', { hosts: names }),
    },
  ];
}
