/** The page over plain HTTP that says how a phone comes to trust this workshop, and what works without. */

const safe = (text) => text.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`);

export function trustPage({ machine, named, secure, fingerprint }) {
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Every Trace on ${safe(machine)}</title>
<style>
body{font:18px/1.5 system-ui,sans-serif;margin:0;background:#f4efe6;color:#191712}
main{max-width:40rem;margin:0 auto;padding:1.2rem}
h1{font-size:1.6rem;border-bottom:4px solid #96441a;padding-bottom:.4rem}
h2{font-size:1.15rem;margin:1.6rem 0 .3rem}
a.go{display:block;background:#96441a;color:#fff;text-align:center;padding:1rem;border-radius:.5rem;font-weight:700;text-decoration:none;margin:1rem 0}
a.plain{background:#fdfbf6;color:#191712;border:2px solid #191712}
code{font-size:.85rem;overflow-wrap:anywhere}
@media (prefers-color-scheme:dark){body{background:#14120f;color:#d8d0c2}a.plain{background:#1e1b17;color:#d8d0c2;border-color:#d8d0c2}}
</style></head><body><main>
<h1>Every Trace on ${safe(machine)}</h1>
<p>Once this phone trusts the workshop’s own authority, the pages open without a warning, keep what you record while the signal is away, may keep the screen on and use the camera.</p>
<a class="go plain" href="/authority.crt" download>1. Take the authority</a>
<h2>Android</h2>
<p>Settings, look for “CA certificate”, install it from the file that was just saved. Then step 2.</p>
<h2>iPhone, iPad</h2>
<p>Allow the profile when it is offered. Settings, Profile Downloaded, Install. Then Settings, General, About, Certificate Trust Settings: switch it on. Then step 2.</p>
<h2>A computer</h2>
<p>Open the file and add it to the authorities that sites are trusted by.</p>
<a class="go" href="${safe(named)}">2. Open Every Trace</a>
<p>This address, ${safe(named)}, stays the same. A phone that does not find it takes <a href="${safe(secure)}">${safe(secure)}</a>, which changes with the address of the machine.</p>
<h2>What you trust by it</h2>
<p>This authority can speak for names that end in .local, for this machine and for private addresses, and for nothing in the internet. Its fingerprint is shown in the terminal of the workshop’s machine too; they have to be the same:</p>
<p><code>${safe(fingerprint)}</code></p>
<h2>Without</h2>
<p>You may go on past the warning of the browser. Pages, entries and sheets work then. What does not: keeping the screen on, the camera in the page, and opening without signal later. Go on only in the workshop’s own network.</p>
</main></body></html>
`;
}
