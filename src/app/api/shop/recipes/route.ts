import { checkPlan, validateRecipe } from '#core/format';
import { keepRecipe, listRecipes, type RecipeInput } from '@/features/changes/server';
import { readRequest, refuse, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Changes that the shop keeps for the next vehicle of the kind. */
export const GET = door('see', async ({ actor }) => {
  const recipes = await listRecipes(actor);
  return Response.json({ recipes }, { headers: { 'Cache-Control': 'no-store' } });
});

/** Keeps one. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<RecipeInput>(request, validateRecipe);
  if (!input.ok) return input.answer;
  const plan = checkPlan(input.value.plan);
  if (!plan.ok) return refuse(400, plan.problems);
  const kept = await keepRecipe(actor, { ...input.value, plan: plan.value });
  return kept.ok ? Response.json(kept) : refuseWith(400, 'not-kept', kept.message);
});
