/** Answers for the stable name in the local network (multicast DNS, RFC 6762), so that phones find the machine by it. */

/** So long an answer is believed, seconds: addresses change, and are to be asked for anew. */
const LASTS_S = 60;

/**
 * Each network of the machine is answered by itself, with the address that the machine has there: a phone in one of them
 * may reach no other. `look` takes the addresses as they are now; a network without multicast is no error.
 */
export async function answerForName(name) {
  const { default: multicastDns } = await import('multicast-dns');
  let open = [];
  const stop = () => {
    const closing = open.map((one) => new Promise((resolve) => one.destroy(resolve)));
    open = [];
    return Promise.all(closing);
  };
  const answerAt = (data) => {
    const mdns = multicastDns({ interface: data, bind: '0.0.0.0', loopback: true });
    mdns.on('error', () => undefined);
    mdns.on('warning', () => undefined);
    mdns.on('query', ({ questions }) => {
      const asked = questions.some(
        (one) => one.name?.toLowerCase() === name && (one.type === 'A' || one.type === 'ANY'),
      );
      if (!asked) return;
      mdns.respond({ answers: [{ name, type: 'A', ttl: LASTS_S, flush: true, data }] }, () => undefined);
    });
    return mdns;
  };
  return {
    look: async (addresses) => {
      await stop();
      open = addresses.map(answerAt);
    },
    stop,
  };
}
