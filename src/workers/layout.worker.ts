/** The layout package in a worker of its own; it takes the messages of its own protocol. */
import 'elkjs/lib/elk-worker.min.js';
