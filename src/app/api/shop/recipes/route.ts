import { checkPlan, validateRecipe } from '#core/format';
import { currentActor } from '@/access';
import { keepRecipe, listRecipes, type RecipeInput } from '@/features/changes/server';
import { answering, readRequest, refuse, refuseWith } from '@/http/answers';

/** Changes that the shop keeps for the next vehicle of the kind. */
export function GET() {
  return answering(async () => {
    const recipes = await listRecipes(await currentActor());
    return Response.json({ recipes }, { headers: { 'Cache-Control': 'no-store' } });
  });
}

/** Keeps one. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<RecipeInput>(request, validateRecipe);
    if (!input.ok) return input.answer;
    const plan = checkPlan(input.value.plan);
    if (!plan.ok) return refuse(400, plan.problems);
    const kept = await keepRecipe(await currentActor(), { ...input.value, plan: plan.value });
    return kept.ok ? Response.json(kept) : refuseWith(400, 'not-kept', kept.message);
  });
}
