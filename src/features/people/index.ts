export { AccountSection } from './AccountSection';
export { BeginForm } from './BeginForm';
export { DemoChoice } from './DemoChoice';
export { EntryForm } from './EntryForm';
export { InstallationSection } from './InstallationSection';
export { PeopleSection } from './PeopleSection';
export { ShareSection } from './ShareSection';
export { SignInForm } from './SignInForm';
