/** A thread of its own for pictures: what comes in is decoded and encoded here, one at a time. */
import { cleanPicture } from './cleanPicture';

export default cleanPicture;
