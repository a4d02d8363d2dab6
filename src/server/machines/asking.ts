import type { ClientRequest, IncomingMessage } from 'node:http';
import { request } from 'node:https';
import { agentFor } from './certificate';

export interface Question {
  method?: 'GET' | 'POST' | 'PUT' | 'HEAD';
  headers?: Record<string, string>;
  /** Milliseconds in which something has to be heard. */
  timeout: number;
  /** Sends the body, and ends it. */
  send?: (body: ClientRequest) => unknown;
}

/** Asks the machine that shows this very certificate at an address. Throws where it does not answer, or shows another. */
export function askMachine(
  { address, certificate }: { address: string; certificate: string },
  route: string,
  { send = (body) => body.end(), ...rest }: Question,
): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const asked = request(`${address}${route}`, { agent: agentFor(certificate), ...rest }, resolve);
    asked.on('timeout', () => asked.destroy(new Error('no answer')));
    asked.on('error', reject);
    Promise.resolve(send(asked)).catch(reject);
  });
}

/** The text of an answer. Throws once it is longer than so many characters. */
export async function textOf(answer: IncomingMessage, most = Infinity): Promise<string> {
  let text = '';
  for await (const chunk of answer.setEncoding('utf8')) {
    text += chunk as string;
    if (text.length > most) throw new Error('The answer is too long.');
  }
  return text;
}
