'use client';

import { useEffect, useState } from 'react';
import { foundOn, type Rests, startedOn } from '#core/change';
import type { CircuitFile, PlanFile } from '#core/format';
import { postJson } from '@/sync/post';
import { Button, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';

export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly plan: PlanFile;
  readonly rests: readonly Rests[];
}

/** Keeps a plan for the next vehicle of the kind. */
export function RecipeKeep({ plan, rests }: { plan: PlanFile; rests: readonly Rests[] }) {
  const [said, setSaid] = useState<string | null>(null);
  const keep = async () => {
    const posted = await postJson<{ message?: string }>('/api/shop/recipes', {
      id: newId(),
      name: plan.name,
      plan,
      rests,
    });
    setSaid(
      posted.kind === 'away'
        ? posted.message
        : posted.ok
          ? '✓ Kept as a recipe of the shop'
          : (posted.answer.message ?? 'It was not kept.'),
    );
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <Button onClick={() => void keep()}>Keep as a recipe of the shop</Button>
      {said ? <p role="status">{said}</p> : null}
    </div>
  );
}

/** A recipe of the shop on this vehicle: what it rests on is looked for by name, the rest chosen; all of it is unverified here. */
export function RecipeStart({
  circuit,
  onStart,
}: {
  circuit: CircuitFile;
  onStart: (plan: PlanFile) => void;
}) {
  const [recipes, setRecipes] = useState<readonly Recipe[] | null>(null);
  const [recipe, setRecipe] = useState<Recipe | null>(null);
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    fetch('/api/shop/recipes', { headers: { accept: 'application/json' } })
      .then(async (answer) => (answer.ok ? ((await answer.json()) as { recipes: Recipe[] }).recipes : []))
      .then((list) => {
        if (!gone) setRecipes(list);
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, []);
  if (!recipes || recipes.length === 0) return null;
  const choose = (id: string) => {
    const one = recipes.find((each) => each.id === id) ?? null;
    setRecipe(one);
    setChosen(one ? foundOn(one.rests, circuit) : {});
    setProblem(null);
  };
  const start = () => {
    if (!recipe) return;
    const started = startedOn(recipe.plan, recipe.rests, chosen, circuit, newId());
    if (started.ok) onStart(started.plan);
    else setProblem(`Still to be chosen: ${started.missing.map(({ name }) => name).join(', ')}.`);
  };
  const listOf = ({ kind, partKind }: Rests): readonly { readonly id: string; readonly name: string }[] =>
    kind === 'part'
      ? circuit.parts.filter((part) => partKind === undefined || part.kind === partKind)
      : kind === 'point'
        ? circuit.nodes
        : circuit.functions;
  return (
    <Fold title={`From a recipe of the shop (${recipes.length})`}>
      <div className="mt-2 grid max-w-xl gap-2">
        <Select aria-label="Recipe" value={recipe?.id ?? ''} onChange={({ target }) => choose(target.value)}>
          <option value="">Choose</option>
          {recipes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
        {recipe?.rests.map((rest) => (
          <label key={rest.id} className="block">
            <span className="text-sm font-semibold">{rest.name} is here</span>
            <Select
              value={chosen[rest.id] ?? ''}
              onChange={({ target }) => setChosen({ ...chosen, [rest.id]: target.value })}
            >
              <option value="">not chosen</option>
              {listOf(rest).map(({ id, name }) => (
                <option key={id} value={id}>
                  {name} · {id}
                </option>
              ))}
            </Select>
          </label>
        ))}
        {problem ? <Problem>{problem}</Problem> : null}
        {recipe ? (
          <Button look="primary" onClick={start}>
            Start it here, unverified
          </Button>
        ) : null}
      </div>
    </Fold>
  );
}
