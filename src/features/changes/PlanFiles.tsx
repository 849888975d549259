'use client';

import { Fragment } from 'react';
import { chosenEdits, type Played, restsOn } from '#core/change';
import type { CircuitFile, PlanFile } from '#core/format';
import { CircuitModel, spiceNetlist, UNALTERED } from '#core/network';
import { useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';
import { FileLink } from '@/ui/FileLink';
import { Fold } from '@/ui/Fold';
import { saveFile } from '@/ui/saveFile';
import type { PlanLooked } from '@/workers/changeMessages';
import { RecipeKeep } from './Recipes';

/** A circuit at rest with the key at run, as ngspice reads it. */
function netlistOf(circuit: CircuitFile): string {
  const model = new CircuitModel(circuit);
  const id = model.adopt({ key: 'run' });
  return spiceNetlist(model.network, model.condition(id), UNALTERED).text;
}

/** The plan as files, and kept as the shop’s own recipe. */
export function PlanFiles({
  plan,
  circuit,
  played,
  looked,
  kept,
}: {
  plan: PlanFile;
  circuit: CircuitFile;
  played: Played | null;
  looked: PlanLooked | null;
  /** The job has it as it stands here. */
  kept: boolean;
}) {
  const { data } = useJob();
  const name =
    plan.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60) || 'plan';
  return (
    <Fold title="Files, and as a recipe">
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          onClick={() =>
            saveFile(`${name}.plan.json`, 'application/json', `${JSON.stringify(plan, null, 2)}\n`)
          }
        >
          Plan (JSON)
        </Button>
        {kept ? (
          <FileLink href={`/api/jobs/${data.id}/work?plan=${encodeURIComponent(plan.id)}`}>
            Work order (PDF)
          </FileLink>
        ) : null}
        {played ? (
          <Fragment>
            <Button onClick={() => saveFile(`${name}-before.cir`, 'text/plain', netlistOf(played.before))}>
              Netlist before
            </Button>
            <Button onClick={() => saveFile(`${name}-after.cir`, 'text/plain', netlistOf(played.after))}>
              Netlist after
            </Button>
          </Fragment>
        ) : null}
        {looked ? null : <span className="text-soft">The rest follows once it is played.</span>}
      </div>
      {kept ? null : (
        <p className="mt-1 text-sm text-soft">The work order prints once the plan is kept on the job.</p>
      )}
      <RecipeKeep plan={{ ...plan, edits: [...chosenEdits(plan)] }} rests={restsOn(plan, circuit)} />
    </Fold>
  );
}
