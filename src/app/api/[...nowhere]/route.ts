import { refuseWith } from '@/http/answers';
import { open } from '@/http/door';

const WHY = 'There is nothing here, whoever asks.';
const nothing = () => refuseWith(404, 'no-such-address', 'There is nothing at this address.');

export const GET = open(WHY, nothing);
export const POST = open(WHY, nothing);
export const PUT = open(WHY, nothing);
export const PATCH = open(WHY, nothing);
export const DELETE = open(WHY, nothing);
