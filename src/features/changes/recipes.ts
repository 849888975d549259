/** Changes that the shop keeps for the next vehicle of the kind. */
import { asc, eq } from 'drizzle-orm';
import type { Rests } from '#core/change';
import type { PlanFile } from '#core/format';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { once } from '@/db/once';
import { recipes } from '@/db/schema';

const MOST_RECIPES = 200;

export interface RecipeInput {
  readonly id: string;
  readonly name: string;
  readonly plan: PlanFile;
  readonly rests: Rests[];
}

/** A recipe of the same name is replaced: it is the shop’s way of doing it. */
export async function keepRecipe(actor: Actor, { id, name, plan, rests }: RecipeInput) {
  return once<{ ok: true } | { ok: false; message: string }>(actor, { id, kind: 'recipe' }, async (tx) => {
    // What belongs to one vehicle or one job stays there.
    const { unverified: _there, undoes: _job, circuit, ...kept } = plan;
    if (circuit)
      return { ok: false, message: 'What was stated without a drawing is no recipe for another vehicle.' };
    const values = { name, plan: kept as PlanFile, rests };
    await tx
      .insert(recipes)
      .values({ id, shopId: actor.shopId, ...values })
      .onConflictDoUpdate({ target: [recipes.shopId, recipes.name], set: values });
    return { ok: true };
  });
}

export async function listRecipes(actor: Actor) {
  return database()
    .select({ id: recipes.id, name: recipes.name, plan: recipes.plan, rests: recipes.rests })
    .from(recipes)
    .where(eq(recipes.shopId, actor.shopId))
    .orderBy(asc(recipes.name))
    .limit(MOST_RECIPES);
}
