export { beginShop, changeSelf, entryOf, mayBegin, takeEntry } from './entry';
export {
  changePeople,
  DEVICE_COOKIE,
  DEVICE_MS,
  devicesOf,
  hasDemo,
  hasOwnShop,
  makeEntryLink,
  peopleOf,
  peopleWithCode,
  sessionsOf,
  shopsOf,
} from './people';

export { shareAddress, shareInfo } from './shareInfo';
