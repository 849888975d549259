export { backupDownload } from './download';
export { backUpTo, backupFolder, backupName, backupsIn, shopsToBackUp } from './folder';
export { backUpTonight, startNightlyBackups } from './nightly';
export { ownCode } from './proof';
export { Damaged, openBackup } from './readBackup';
export { AlreadyHere, restoreBackup } from './restoreBackup';
