export { beginShop, changeSelf, entryOf, mayBegin, takeEntry } from './entry';
export {
  changePeople,
  DEVICE_COOKIE,
  DEVICE_MS,
  devicesOf,
  hasDemo,
  hasOwnShop,
  makeEntryLink,
  type Person,
  peopleOf,
  peopleWithCode,
  sessionsOf,
  shopsOf,
} from './people';
export { removeDemo } from './removeDemo';
export { shareAddress, shareInfo } from './shareInfo';
