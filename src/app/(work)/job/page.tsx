import { JobViews } from './JobViews';

/** The one document of all work views; what it shows is decided in the browser, by the address. */
export default function WorkDocument() {
  return <JobViews />;
}
